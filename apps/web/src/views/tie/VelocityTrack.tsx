import type { Tie, TimeDepthRelation } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { useUnits } from '../../state/units';
import { type Box, Limits, type Scale } from './parts';
import css from './Tie.module.css';

/** Steps of time over which interval velocities are taken, ms. */
const STEP = 40;

/** Interval velocity (m/s) between even times, from rising pairs. */
function intervals(
  twt: ArrayLike<number>,
  depth: ArrayLike<number>,
  from: number,
  to: number,
): { t: number; v: number }[] {
  const at = (t: number) => {
    let n = 0;
    while (n < twt.length - 2 && twt[n + 1] < t) n++;
    return depth[n] + ((t - twt[n]) * (depth[n + 1] - depth[n])) / (twt[n + 1] - twt[n]);
  };
  const out: { t: number; v: number }[] = [];
  for (let t = Math.max(from, twt[0]); t + STEP <= Math.min(to, twt[twt.length - 1]); t += STEP)
    out.push({ t, v: (2000 * (at(t + STEP) - at(t))) / STEP });
  return out;
}

/** What the tie makes of velocity: of the calibrated sonic, of the checkshots, and of the tie, red where it leaves the bound. */
export function VelocityTrack(props: {
  tie: Tie;
  y: Scale;
  box: Box;
  bound: number;
  /** Other versions of the well’s tie, to compare with. */
  others: TimeDepthRelation[];
}) {
  const units = useUnits();
  const { tie, y, box, bound, others } = props;
  const { chain } = tie;
  const [from, to] = y.domain();
  const lines = useMemo(() => {
    const { tvdss } = chain.logs.slowness;
    const sonic = intervals(
      chain.calibration.twt.map((t) => t + chain.shiftMs),
      tvdss,
      from - STEP,
      to + STEP,
    );
    const tied = intervals(chain.twt, tvdss, from - STEP, to + STEP);
    return { sonic, tied };
  }, [chain, from, to]);
  const shots = chain.calibration.drift.flatMap((d, n, all) => {
    const next = all[n + 1];
    if (!next) return [];
    const z = chain.logs.slowness.tvdss;
    const time = (depth: number, drift: number) => {
      let k = 0;
      while (k < z.length - 1 && z[k] < depth) k++;
      return chain.calibration.sonicMs[k] + drift;
    };
    const [a, b] = [time(d.tvdss, d.driftMs), time(next.tvdss, next.driftMs)];
    return b > a ? [{ t: a + chain.shiftMs, to: b + chain.shiftMs, v: (2000 * (next.tvdss - d.tvdss)) / (b - a) }] : [];
  });
  const all = [...lines.sonic, ...lines.tied].map((p) => p.v);
  const shown = all.map((v) => units.to(v, 'm/s'));
  const ends: [number, number] = [
    Math.floor(Math.min(...shown, units.to(6000, 'm/s')) / 100) * 100 - 100,
    Math.ceil(Math.max(...shown, units.to(1500, 'm/s')) / 100) * 100 + 100,
  ];
  const limits = ends.map((v) => units.from(v, 'm/s'));
  const x = scaleLinear(limits, [box.left, box.left + box.width]);
  const steps = (points: { t: number; v: number }[]) =>
    points
      .map(
        (p, n) =>
          `${n ? 'L' : 'M'}${x(p.v).toFixed(1)} ${y(p.t).toFixed(1)}L${x(p.v).toFixed(1)} ${y(p.t + STEP).toFixed(1)}`,
      )
      .join('');
  return (
    <g>
      <Limits box={box} limits={ends} places={0} />
      <clipPath id="velocity-box">
        <rect x={box.left} y={box.top} width={box.width} height={box.height} />
      </clipPath>
      <g clipPath="url(#velocity-box)" fill="none">
        {shots.map((s) => (
          <line key={s.t} x1={x(s.v)} x2={x(s.v)} y1={y(s.t)} y2={y(s.to)} className={css.shotVelocity} />
        ))}
        {others.map((o) => (
          <path
            key={o.id}
            className={css.otherVelocity}
            d={steps(
              intervals(
                o.pairs.map((p) => p[1]),
                o.pairs.map((p) => p[0]),
                from - STEP,
                to + STEP,
              ),
            )}
          >
            <title>{o.name}</title>
          </path>
        ))}
        <path d={steps(lines.sonic)} className={css.sonicVelocity} />
        <path d={steps(lines.tied)} className={css.tiedVelocity} />
        {lines.tied.map((p, n) => {
          const before = lines.sonic[n]?.v ?? p.v;
          return Math.abs(p.v / before - 1) > bound ? (
            <line key={p.t} x1={x(p.v)} x2={x(p.v)} y1={y(p.t)} y2={y(p.t + STEP)} className={css.beyond} />
          ) : null;
        })}
      </g>
    </g>
  );
}
