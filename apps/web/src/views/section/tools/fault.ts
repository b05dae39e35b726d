import { finishStick } from '../../../actions/draw';
import { type Tool, takeTool } from '../../../state/tool';
import { placeOf, type SectionLine } from '../geometry';
import type { At } from '../useWindow';
import type { Hands } from './hands';

/** Points of a fault stick, one after the other. */
export function faultHands(tool: Extract<Tool, { kind: 'fault' }>, line: SectionLine): Hands {
  const put = ({ trace, vertical }: At) => {
    if (trace >= 0 && trace <= line.traces - 1)
      takeTool({ ...tool, stick: [...tool.stick, [...placeOf(line, trace), vertical]] });
  };
  const end = () => void finishStick();
  return {
    cursor: 'crosshair',
    down: put,
    end,
    turn() {
      end();
      return true;
    },
    put,
    back: () => takeTool({ ...tool, stick: tool.stick.slice(0, -1) }),
  };
}
