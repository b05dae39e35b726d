import { insideRings } from '@lithagon/core';
import { endStretch } from '../../../actions/picking/picks';
import {
  drawOnSlice,
  type PickedSlice,
  pickOnSlice,
  rubOnSlice,
  sameSide,
  unpickOnSlice,
} from '../../../actions/picking/slice';
import { type PickTool, takeTool } from '../../../state/tool';
import type { Hands, OnMap } from './hands';

/** A press that moves less than this is a click, pixels. */
const CLICK = 4;
/** How near to a pick the right button takes it away, pixels. */
const NEAR = 12;

/** What is drawn with the pointer held down. */
export type Stroke = [x: number, y: number][];

/** Picks on a slice and what takes them away: clicks, strokes and rings. */
export function pickHands(
  tool: PickTool,
  on: PickedSlice,
  perPixel: number,
  stroke: Stroke,
  setStroke: (stroke: Stroke) => void,
): Hands {
  const brush = (at: OnMap) =>
    void rubOnSlice(tool, on, (x, y) => Math.hypot(x - at.x, y - at.y) <= tool.brush * perPixel);
  const put = (at: OnMap) => {
    if (tool.rub === 'brush') brush(at);
    else if (tool.rub === 'between faults') void rubOnSlice(tool, on, (x, y) => sameSide(on, [x, y], [at.x, at.y]));
    else if (!tool.rub) void pickOnSlice(tool, on, at.x, at.y);
  };
  const moved = stroke.some(([x, y]) => Math.hypot(x - stroke[0][0], y - stroke[0][1]) > CLICK * perPixel);
  return {
    click: put,
    down(at) {
      if (tool.rub === 'brush') brush(at);
      setStroke([[at.x, at.y]]);
    },
    drag(at) {
      if (tool.rub === 'brush') return brush(at);
      if (stroke.length > 0) setStroke([...stroke, [at.x, at.y]]);
    },
    up(at) {
      setStroke([]);
      if (tool.rub === 'brush' || stroke.length === 0) return;
      if (tool.rub === 'ring') {
        const inside = insideRings([stroke]);
        if (stroke.length > 2) void rubOnSlice(tool, on, inside);
      } else if (moved && !tool.rub && tool.how !== 'followed') void drawOnSlice(tool, on, stroke);
      else put({ ...at, x: stroke[0][0], y: stroke[0][1] });
    },
    end: endStretch,
    turn(at) {
      void unpickOnSlice(tool, on, at.x, at.y, NEAR * perPixel);
    },
    back: () => takeTool({ ...tool, rub: null }),
  };
}
