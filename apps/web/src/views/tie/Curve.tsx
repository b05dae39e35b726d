import type { ScaleLinear } from 'd3-scale';

/** Smallest and largest value of a curve, a little apart. */
export function smallestAndLargest(values: Float64Array): [number, number] {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const v of values) {
    if (!(v < low) && !(v > high)) continue;
    low = Math.min(low, v);
    high = Math.max(high, v);
  }
  const pad = 0.04 * (high - low) || 1;
  return [low - pad, high + pad];
}

/** A curve against time, thinned to what a pixel can show: its extremes in each row of pixels. */
export function Curve(props: {
  box: { left: number; top: number; width: number; height: number };
  y: ScaleLinear<number, number>;
  times: Float64Array;
  values: Float64Array;
  limits: [number, number];
  color: string;
}) {
  const { box, y, times, values, limits } = props;
  const [from, to] = y.domain();
  const x = (v: number) => box.left + ((v - limits[0]) / (limits[1] - limits[0])) * box.width;
  let d = '';
  let row = Number.NaN;
  let [low, high] = [0, 0];
  const flush = () => {
    if (Number.isNaN(row)) return;
    d += `${d ? 'L' : 'M'}${x(low).toFixed(1)} ${row}`;
    if (high - low > 0) d += `L${x(high).toFixed(1)} ${row}`;
  };
  for (let n = 0; n < times.length; n++) {
    if (times[n] < from || times[n] > to || Number.isNaN(values[n])) continue;
    const at = Math.round(y(times[n]));
    if (at !== row) {
      flush();
      row = at;
      low = values[n];
      high = values[n];
    } else {
      low = Math.min(low, values[n]);
      high = Math.max(high, values[n]);
    }
  }
  flush();
  return <path d={d} fill="none" stroke={props.color} strokeWidth={1} />;
}
