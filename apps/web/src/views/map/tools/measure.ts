import type { Domain } from '@lithagon/core';
import { type Tool, takeTool } from '../../../state/tool';
import type { Hands } from './hands';

/** Two places on the map, with time or depth where it shows a surface; a third begins anew. */
export function measureHands(
  tool: Extract<Tool, { kind: 'measure' }>,
  view: string,
  domain: Domain,
  verticalAt: (x: number, y: number) => number | null,
): Hands {
  return {
    click({ x, y }) {
      const begun = tool.view === view && tool.points.length === 1 ? tool.points : [];
      takeTool({ ...tool, view, domain, points: [...begun, [x, y, verticalAt(x, y)]] });
    },
    back: () => takeTool({ ...tool, points: [] }),
  };
}
