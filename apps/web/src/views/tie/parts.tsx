import type { Tie } from '@lithagon/core';
import type { ScaleLinear } from 'd3-scale';
import { pathText } from '../../picture/path';
import { figure } from '../../ui/format';
import css from './Tie.module.css';

export interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}
export type Scale = ScaleLinear<number, number>;

/** The values at the two sides of a track. */
export function Limits({ box, limits, places }: { box: Box; limits: [number, number]; places: number }) {
  const y = box.top + box.height + 12;
  const text = (v: number) => figure(v, places);
  return (
    <>
      <text x={box.left} y={y} className={css.number}>
        {text(limits[0])}
      </text>
      <text x={box.left + box.width} y={y} textAnchor="end" className={css.number}>
        {text(limits[1])}
      </text>
    </>
  );
}

/** Reflection coefficients as bars: harder to the right. */
export function Reflections({ tie, times, y, box }: { tie: Tie; times: Float64Array; y: Scale; box: Box }) {
  const r = tie.chain.elastic.reflectivity;
  const [from, to] = y.domain();
  const middle = box.left + box.width / 2;
  let up = '';
  let down = '';
  for (let n = 0; n < r.length; n++) {
    if (times[n] < from || times[n] > to || Math.abs(r[n]) < 0.003) continue;
    const x = middle + Math.max(-0.5, Math.min(0.5, r[n] / 0.4)) * box.width;
    const bar = `M${middle.toFixed(1)} ${y(times[n]).toFixed(1)}H${x.toFixed(1)}`;
    if (r[n] > 0) up += bar;
    else down += bar;
  }
  return (
    <g fill="none" strokeWidth={1.2}>
      <line x1={middle} x2={middle} y1={box.top} y2={box.top + box.height} className={css.tick} />
      <path d={up} stroke="#9c4a2b" />
      <path d={down} stroke="#4a6a86" />
    </g>
  );
}

export function Wiggles(props: {
  box: Box;
  y: Scale;
  first: number;
  step: number;
  traces: { x: number; values: ArrayLike<number> }[];
  scale: number;
}) {
  const { box, y, first, step } = props;
  const [from, to] = y.domain();
  return (
    <g className={css.wiggle}>
      {props.traces.map(({ x, values }) => {
        const middle = box.left + x * box.width;
        const points: [number, number][] = [];
        for (let k = Math.max(0, Math.ceil((from - first) / step)); k < values.length; k++) {
          const t = first + k * step;
          if (t > to) break;
          if (Number.isNaN(values[k])) continue;
          const at = Math.max(box.left, Math.min(box.left + box.width, middle + values[k] * props.scale));
          points.push([at, y(t)]);
        }
        return <path key={x} d={pathText(points)} />;
      })}
    </g>
  );
}

export function Running({ tie, y, box }: { tie: Tie; y: Scale; box: Box }) {
  const { running } = tie.chain;
  const [from, to] = y.domain();
  let d = '';
  let [first, last] = [0, 0];
  for (let k = 0; k < running.values.length; k++) {
    const t = running.firstMs + k * running.stepMs;
    if (t < from || t > to || Number.isNaN(running.values[k])) continue;
    if (!d) first = y(t);
    last = y(t);
    d += `L${(box.left + Math.max(0, running.values[k]) * box.width).toFixed(1)} ${y(t).toFixed(1)}`;
  }
  return <path d={d ? `M${box.left} ${first}${d}L${box.left} ${last}Z` : ''} className={css.running} />;
}
