import { sectionAlong } from '../../../actions/line';
import { type Tool, takeTool } from '../../../state/tool';
import type { ShownWell } from '../../common/survey';
import type { Hands } from './hands';
import { wellNear } from './wells';

type LineTool = Extract<Tool, { kind: 'line' }>;

/** Corners of a line for a section, one after the other; near a well the corner is the well. */
export function lineHands(tool: LineTool, wells: ShownWell[], perPixel: number): Hands {
  return {
    click({ x, y }) {
      const near = wellNear(wells, x, y, perPixel);
      const last = tool.names[tool.names.length - 1];
      if (near && last === near.well.name) return;
      takeTool({
        ...tool,
        points: [...tool.points, near ? [near.well.x, near.well.y] : [x, y]],
        names: [...tool.names, near?.well.name ?? null],
      });
    },
    end: () => sectionAlong(tool, wells),
    back: () => takeTool({ ...tool, points: tool.points.slice(0, -1), names: tool.names.slice(0, -1) }),
  };
}
