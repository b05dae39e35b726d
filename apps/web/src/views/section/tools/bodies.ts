import type { OnSection } from '@lithagon/core';
import { addStrokes, setPlace } from '../../../actions/bodies';
import { type Tool, takeTool } from '../../../state/tool';
import { type Frame, scales } from '../frame';
import { placeOf, type SectionLine } from '../geometry';
import type { At } from '../useWindow';
import type { Hands } from './hands';

/** A click gives a place to the step that is set up. */
export function placeHands(tool: Extract<Tool, { kind: 'place' }>, line: SectionLine): Hands {
  const put = ({ trace, vertical }: At) => {
    setPlace(tool, [...placeOf(line, Math.max(0, Math.min(line.traces - 1, trace))), vertical]);
    takeTool(null);
  };
  return { cursor: 'crosshair', down: put, put };
}

/** Part of a brush's radius that it moves on by from ball to ball. */
const STEP = 0.4;

interface Stroke {
  places: OnSection[];
  moved: boolean;
}

/** Strokes of a brush with the pointer held down; each is kept when it ends. */
export function brushHands(
  tool: Extract<Tool, { kind: 'body brush' }>,
  frame: Frame,
  stroke: Stroke | null,
  setStroke: (stroke: Stroke | null) => void,
): Hands {
  const { line } = frame;
  const { x, y } = scales(frame);
  const [wide, tall] = brushPixels(tool, frame);
  return {
    cursor: 'none',
    down: (at) => setStroke({ places: [[at.trace, at.vertical]], moved: false }),
    drag(at) {
      if (!stroke) return;
      const [t, v] = stroke.places[stroke.places.length - 1];
      const off = Math.hypot((x(at.trace) - x(t)) / wide, (y(at.vertical) - y(v)) / tall);
      if (off > STEP) setStroke({ places: [...stroke.places, [at.trace, at.vertical]], moved: true });
    },
    up() {
      if (stroke)
        addStrokes(
          tool,
          stroke.places.map(([t, v]) => [...placeOf(line, Math.max(0, Math.min(line.traces - 1, t))), v]),
        );
      setStroke(null);
    },
    put: (at) => addStrokes(tool, [[...placeOf(line, at.trace), at.vertical]]),
  };
}

/** Half width and half height of a brush on the screen. */
export function brushPixels({ wide, tall }: Extract<Tool, { kind: 'body brush' }>, frame: Frame): [number, number] {
  const { line, window, box } = frame;
  const middle = (window.x0 + window.x1) / 2;
  const [a, b] = [placeOf(line, Math.max(0, middle - 1)), placeOf(line, Math.min(line.traces - 1, middle + 1))];
  const perTrace = Math.hypot(b[0] - a[0], b[1] - a[1]) / 2 || 1;
  return [
    (wide / perTrace) * (box.width / Math.max(1, window.x1 - window.x0)),
    tall * (box.height / Math.max(1, window.y1 - window.y0)),
  ];
}
