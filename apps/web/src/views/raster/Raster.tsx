import type { Volume } from '@lithagon/core';
import type { PlaneState } from '../common/hooks';
import css from '../common/view.module.css';
import type { FieldLook } from './field';
import type { Mix } from './mix';
import type { Sum } from './quad';
import { useQuad } from './useQuad';

/** The window of a section that is in view: traces and vertical. */
export interface Window {
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}

/** Traces side by side, time or depth downwards. */
export function Raster(props: {
  plane: PlaneState;
  traces: number;
  vertical: Volume['vertical'];
  look: FieldLook;
  mix?: Mix;
  sum?: Sum;
  window: Window;
  box: { left: number; top: number; width: number; height: number };
  /** What it shows, for tests: `section`, `seismic`, `synthetic`. */
  name: string;
}) {
  const { plane, traces, vertical, look, window, box } = props;
  const { first, step, count } = vertical;
  const [top, bottom, right] = [-first, -(first + step * (count - 1)), traces - 1];
  const canvas = useQuad({
    data: plane.data,
    rows: traces,
    samples: count,
    corners: [0, top, 0, bottom, right, bottom, right, top],
    window: [window.x0, window.x1, -window.y0, -window.y1],
    look,
    mix: props.mix,
    sum: props.sum,
    width: box.width,
    height: box.height,
  });
  return (
    <canvas
      ref={canvas}
      className={css.canvas}
      data-testid={`${props.name}-raster`}
      data-plane={plane.key}
      style={{ left: box.left, top: box.top, width: box.width, height: box.height }}
    />
  );
}
