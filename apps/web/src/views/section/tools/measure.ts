import type { Domain } from '@lithagon/core';
import { type Tool, takeTool } from '../../../state/tool';
import { placeOf, type SectionLine } from '../geometry';
import type { At } from '../useWindow';
import type { Hands } from './hands';

/** Two places on a section; a third begins anew. */
export function measureHands(
  tool: Extract<Tool, { kind: 'measure' }>,
  view: string,
  line: SectionLine,
  domain: Domain,
): Hands {
  const put = ({ trace, vertical }: At) => {
    const [x, y] = placeOf(line, Math.max(0, Math.min(line.traces - 1, trace)));
    const begun = tool.view === view && tool.points.length === 1 ? tool.points : [];
    takeTool({ ...tool, view, domain, points: [...begun, [x, y, vertical]] });
  };
  return {
    cursor: 'crosshair',
    down: put,
    put,
    end: () => undefined,
    back: () => takeTool({ ...tool, points: [] }),
  };
}
