import type { OnSection } from '@lithagon/core';
import { insideRings } from '@lithagon/core';
import { endStretch } from '../../../actions/picking/picks';
import { type Picked, pickAlong, pickAt, rubOut, sameBlock, unpickAt } from '../../../actions/picking/section';
import { type PickTool, takeTool } from '../../../state/tool';
import { type Frame, scales } from '../frame';
import type { Hands } from './hands';

/** A press that moves less than this is a click, pixels. */
const CLICK = 4;

interface Stroke {
  places: OnSection[];
  moved: boolean;
}

/** Picks and what takes them away: clicks, strokes with the pointer held down, and rings. */
export function pickHands(
  tool: PickTool,
  on: Picked,
  frame: Frame,
  stroke: Stroke | null,
  setStroke: (stroke: Stroke | null) => void,
): Hands {
  const { x, y } = scales(frame);
  const far = ([t, v]: OnSection, [u, w]: OnSection) => Math.hypot(x(t) - x(u), y(v) - y(w));
  const brush = (at: OnSection) => rubOut(tool, on.line, (t, v) => far([t, v], at) <= tool.brush);
  return {
    cursor: tool.rub ? 'cell' : 'crosshair',
    down(at) {
      if (tool.rub === 'brush') void brush([at.trace, at.vertical]);
      setStroke({ places: [[at.trace, at.vertical]], moved: false });
    },
    drag(at) {
      if (!stroke) return;
      const here: OnSection = [at.trace, at.vertical];
      const moved = stroke.moved || far(stroke.places[0], here) > CLICK;
      if (tool.rub === 'brush') void brush(here);
      // a followed event is led by clicks alone
      if (moved && (tool.rub === 'ring' || tool.how !== 'followed'))
        setStroke({ places: [...stroke.places, here], moved });
    },
    up(at) {
      setStroke(null);
      if (!stroke) return;
      const here: OnSection = [at.trace, at.vertical];
      if (tool.rub === 'ring' && stroke.places.length > 2) {
        const inside = insideRings([stroke.places]);
        void rubOut(tool, on.line, (t, v) => inside(t, v));
      } else if (tool.rub === 'between faults') void rubOut(tool, on.line, (t, v) => sameBlock(on.cuts, [t, v], here));
      else if (tool.rub) return;
      else if (stroke.moved && tool.how !== 'followed') void pickAlong(tool, on, stroke.places);
      else void pickAt(tool, on, stroke.places[0][0], stroke.places[0][1]);
    },
    end: endStretch,
    turn(at) {
      void unpickAt(tool, on.line, at.trace, at.vertical);
      return true;
    },
    put(at) {
      if (!tool.rub) void pickAt(tool, on, at.trace, at.vertical);
      else if (tool.rub === 'brush') void brush([at.trace, at.vertical]);
    },
    back: () => takeTool({ ...tool, rub: null }),
  };
}
