import type { Tie, TimeDepthRelation } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useRef } from 'react';
import { useUnits } from '../../state/units';
import { figure } from '../../ui/format';
import { type Box, Limits, type Scale } from './parts';
import css from './Tie.module.css';
import { changeTie } from './useTie';

/** Drift of the sonic from the checkshots: points are checkshots, the line is the correction, its knees can be moved. */
export function Drift(props: {
  tie: Tie;
  y: Scale;
  box: Box;
  draft: boolean;
  moved: { tvdss: number; driftMs: number }[];
  /** Other versions of the well’s tie, to compare with. */
  others: TimeDepthRelation[];
}) {
  const units = useUnits();
  const { tie, y, box, draft, moved } = props;
  const { calibration, logs } = tie.chain;
  const held = useRef<number | null>(null);
  const twtAt = (tvdss: number) => {
    const z = logs.slowness.tvdss;
    let n = 0;
    while (n < z.length - 1 && z[n] < tvdss) n++;
    return calibration.twt[n] + tie.chain.shiftMs;
  };
  // relative to the first knee, which carries the time at which the sonic begins
  const zero = calibration.knees[0].driftMs;
  const values = [...calibration.drift, ...calibration.knees].map((d) => d.driftMs - zero);
  const most = Math.max(4, ...values.map(Math.abs)) * 1.25;
  const x = scaleLinear([-most, most], [box.left, box.left + box.width]);
  const knee = (n: number, driftMs: number) => {
    const { tvdss } = calibration.knees[n];
    changeTie({ knees: [...moved.filter((m) => Math.abs(m.tvdss - tvdss) > 0.5), { tvdss, driftMs }] });
  };
  return (
    <g>
      <line x1={x(0)} x2={x(0)} y1={box.top} y2={box.top + box.height} className={css.tick} />
      <Limits box={box} limits={[-most, most]} places={0} />
      <clipPath id="drift-box">
        <rect x={box.left} y={box.top} width={box.width} height={box.height} />
      </clipPath>
      <g clipPath="url(#drift-box)">
        {calibration.drift.map((d) => (
          <circle key={d.tvdss} cx={x(d.driftMs - zero)} cy={y(twtAt(d.tvdss))} r={2.4} className={css.shot} />
        ))}
        <path
          d={calibration.knees.map((k, n) => `${n ? 'L' : 'M'}${x(k.driftMs - zero)} ${y(twtAt(k.tvdss))}`).join('')}
          className={css.driftLine}
        />
        {props.others.map((o) => (
          <path
            key={o.id}
            className={css.otherVelocity}
            fill="none"
            d={driftOf(tie, o)
              .map(([z, ms], n) => `${n ? 'L' : 'M'}${x(ms - zero).toFixed(1)} ${y(twtAt(z)).toFixed(1)}`)
              .join('')}
          >
            <title>{o.name}</title>
          </path>
        ))}
        {calibration.knees.map((k, n) => (
          <rect
            key={k.tvdss}
            x={x(k.driftMs - zero) - 4}
            y={y(twtAt(k.tvdss)) - 4}
            width={8}
            height={8}
            className={`${css.knee} ${moved.some((m) => Math.abs(m.tvdss - k.tvdss) < 0.5) ? css.moved : ''}`}
            onPointerDown={(e) => {
              if (!draft) return;
              e.stopPropagation();
              e.currentTarget.setPointerCapture(e.pointerId);
              held.current = n;
            }}
            onPointerMove={(e) => {
              if (held.current !== n) return;
              const left = e.currentTarget.ownerSVGElement?.getBoundingClientRect().left ?? 0;
              knee(n, x.invert(e.clientX - left) + zero);
            }}
            onPointerUp={() => {
              held.current = null;
            }}
            onDoubleClick={(e) => {
              e.stopPropagation();
              changeTie({ knees: moved.filter((m) => Math.abs(m.tvdss - k.tvdss) > 0.5) });
            }}
          >
            <title>{`${figure(k.driftMs - zero)} ms at ${units.text(k.tvdss, 'm TVDSS', 0)}${draft ? '; drag to move, double-click to let go' : ''}`}</title>
          </rect>
        ))}
      </g>
    </g>
  );
}

/** Drift of another version: its times less those of the sonic alone, at some depths. */
function driftOf(tie: Tie, other: TimeDepthRelation): [tvdss: number, ms: number][] {
  const { calibration, logs } = tie.chain;
  const z = logs.slowness.tvdss;
  const out: [number, number][] = [];
  for (let n = 0; n < z.length; n += Math.max(1, Math.floor(z.length / 60))) {
    const k = other.pairs.findIndex((p) => p[0] >= z[n]);
    if (k < 1) continue;
    const [[z0, t0], [z1, t1]] = [other.pairs[k - 1], other.pairs[k]];
    out.push([z[n], t0 + ((z[n] - z0) * (t1 - t0)) / (z1 - z0) - calibration.sonicMs[n] - tie.chain.shiftMs]);
  }
  return out;
}
