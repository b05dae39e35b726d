import type { Volume } from '@lithagon/core';
import { useLayoutEffect, useRef } from 'react';
import type { PlaneState } from '../../common/hooks';
import css from '../../common/view.module.css';
import type { FieldLook } from '../../raster/field';
import type { Window } from '../../raster/Raster';

/** Fewest pixels between two wiggles, and how far one may swing, in traces. */
const [CLOSEST, SWING] = [5, 1.6];
const INK = '#17191b';

/** Traces as curves about where they stand, swinging right where values are positive; those too close to be told apart are left out. */
export function Wiggles(props: {
  plane: PlaneState;
  traces: number;
  vertical: Volume['vertical'];
  look: FieldLook;
  window: Window;
  box: { left: number; top: number; width: number; height: number };
  /** Whether what swings right is filled. */
  filled: boolean;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { plane, traces, vertical, look, window, box, filled } = props;
  useLayoutEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!canvas.current || !context) return;
    const scale = devicePixelRatio;
    canvas.current.width = Math.round(box.width * scale);
    canvas.current.height = Math.round(box.height * scale);
    context.scale(scale, scale);
    drawWiggles(context, { data: plane.data, traces, vertical, look, window, box, filled });
  }, [plane.data, traces, vertical, look, window, box, filled]);
  return (
    <canvas
      ref={canvas}
      className={css.canvas}
      data-testid="wiggles"
      style={{ left: box.left, top: box.top, width: box.width, height: box.height }}
    />
  );
}

/** Which traces are drawn: each of so many that they stand `CLOSEST` pixels apart. */
export const everyTrace = (perTrace: number) => Math.max(1, Math.ceil(CLOSEST / perTrace));

function drawWiggles(
  context: CanvasRenderingContext2D,
  q: Omit<Parameters<typeof Wiggles>[0], 'plane'> & { data: Float32Array },
): void {
  const { first, step, count } = q.vertical;
  const perTrace = q.box.width / (q.window.x1 - q.window.x0);
  const every = everyTrace(perTrace);
  const middle = (q.look.low + q.look.high) / 2;
  const perValue = (SWING * every * perTrace) / (q.look.high - middle);
  const perUnit = q.box.height / (q.window.y1 - q.window.y0);
  const k0 = Math.max(0, Math.floor((q.window.y0 - first) / step) - 1);
  const k1 = Math.min(count - 1, Math.ceil((q.window.y1 - first) / step) + 1);
  const from = Math.max(0, Math.ceil(q.window.x0 / every) * every - every);
  context.lineWidth = 0.7;
  context.strokeStyle = INK;
  context.fillStyle = INK;
  for (let t = from; t <= Math.min(q.traces - 1, q.window.x1 + every); t += every) {
    const x = (t - q.window.x0) * perTrace;
    const at = (k: number) => q.data[t * count + k];
    const swing = (v: number) =>
      x + Math.max(-2, Math.min(2, ((v - middle) * perValue) / (every * perTrace))) * every * perTrace;
    const y = (k: number) => (first + k * step - q.window.y0) * perUnit;
    context.beginPath();
    let down = false;
    for (let k = k0; k <= k1; k++) {
      const v = at(k);
      if (Number.isNaN(v)) {
        down = false;
        continue;
      }
      if (down) context.lineTo(swing(v), y(k));
      else context.moveTo(swing(v), y(k));
      down = true;
    }
    context.stroke();
    if (!q.filled) continue;
    context.beginPath();
    let open = false;
    for (let k = k0; k <= k1; k++) {
      const v = at(k) - middle;
      const before = k > 0 ? at(k - 1) - middle : Number.NaN;
      // lobes begin and end where the trace crosses its middle
      if (v > 0) {
        if (!open) context.moveTo(x, y(before <= 0 ? k - v / (v - before) : k));
        open = true;
        context.lineTo(swing(at(k)), y(k));
      } else if (open) {
        context.lineTo(x, y(v <= 0 ? k - v / (v - before) : k - 1));
        context.closePath();
        open = false;
      }
    }
    if (open) {
      context.lineTo(x, y(k1));
      context.closePath();
    }
    context.fill();
  }
}
