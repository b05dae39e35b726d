import { quantile } from '@lithagon/core';
import { pathText } from '../../picture/path';
import type { ShownWell } from '../../views/common/survey';
import { type Frame, scales } from '../../views/section/frame';
import { traceOf } from '../../views/section/geometry';
import { useSynthetic } from './useSynthetic';

/** How far the strongest events swing to either side, pixels. */
const SWING = 17;
const INK = '#17191b';

/** The synthetic of a well's tie along its path: what it has of positive values is filled. */
export function SyntheticAlong(props: { well: ShownWell; frame: Frame; reach: number }) {
  const { well, frame, reach } = props;
  const series = useSynthetic(well.well.name);
  const { x, y } = scales(frame);
  if (!series) return null;
  const strong = quantile(series.values.map(Math.abs), 0.99) || 1;
  const line: [number, number][] = [];
  const filled: [number, number][][] = [];
  let ring: [number, number][] = [];
  const close = () => {
    if (ring.length > 1) filled.push([...ring, [ring[0][0], ring[ring.length - 1][1]], ring[0]]);
    ring = [];
  };
  let k = 1;
  for (const [n, value] of series.values.entries()) {
    const twt = series.firstMs + n * series.stepMs;
    while (k < well.points.length - 1 && !(well.points[k][3] >= twt)) k++;
    const [a, b] = [well.points[k - 1], well.points[k]];
    const f = (twt - a[3]) / (b[3] - a[3]);
    const [trace, off] = traceOf(frame.line, a[0] + f * (b[0] - a[0]), a[1] + f * (b[1] - a[1]));
    if (!(f >= 0 && f <= 1 && off <= reach)) {
      close();
      continue;
    }
    const middle = x(trace) - SWING - 5;
    const at = y(frame.domain === 'twt' ? twt : a[2] + f * (b[2] - a[2]));
    const to = middle + SWING * Math.max(-1, Math.min(1, value / strong));
    line.push([to, at]);
    if (value <= 0) close();
    else {
      if (ring.length === 0) ring.push([middle, at]);
      ring.push([to, at]);
    }
  }
  close();
  return (
    <g data-testid="synthetic-along">
      <path d={pathText(line)} fill="none" stroke="#fffdf7" strokeOpacity={0.75} strokeWidth={3} />
      <path d={filled.map((r) => pathText(r, true)).join('')} fill={INK} fillOpacity={0.82} stroke="none" />
      <path d={pathText(line)} fill="none" stroke={INK} strokeWidth={1}>
        <title>synthetic of {well.well.name}</title>
      </path>
    </g>
  );
}
