import { angleBetween, type Kamb, offNet, ofPole, toNet } from '@lithagon/core';
import { contours } from 'd3-contour';
import { useMemo, useRef, useState } from 'react';
import { bandColor } from '../../color/maps';
import css from './Net.module.css';
import { type Pole, planeText } from './poles';

/** A circle that is being dragged on the net: planes within so much of one. */
export interface Circle {
  dip: number;
  azimuth: number;
  within: number;
}

/** Density is drawn at every so many standard deviations. */
const EVERY = 2;

/** Meridians of the net every thirty degrees of dip. */
const DIPS = [30, 60];

/** Points of a small circle about an axis on the net, where it does not leave the disc. */
function ringOf({ dip, azimuth, within }: Circle): [number, number][] {
  const out: [number, number][] = [];
  const rad = Math.PI / 180;
  const [d, a] = [dip * rad, azimuth * rad];
  const axis = [-Math.sin(d) * Math.sin(a), -Math.sin(d) * Math.cos(a), Math.cos(d)];
  const u = [Math.cos(a), -Math.sin(a), 0];
  const v = [axis[1] * u[2] - axis[2] * u[1], axis[2] * u[0] - axis[0] * u[2], axis[0] * u[1] - axis[1] * u[0]];
  for (let n = 0; n <= 72; n++) {
    const t = (n / 72) * 2 * Math.PI;
    const p = [0, 1, 2].map(
      (c) => Math.cos(within * rad) * axis[c] + Math.sin(within * rad) * (Math.cos(t) * u[c] + Math.sin(t) * v[c]),
    );
    // what rises comes in again on the other side
    const s = p[2] < 0 ? -1 : 1;
    out.push(toNet([s * p[0], s * p[1], s * p[2]]));
  }
  return out;
}

/** The lower half of the sphere in equal areas: poles, their density, sets; a circle is dragged over poles that belong together. */
export function Disc(props: {
  size: number;
  poles: Pole[];
  kamb: Kamb | null;
  middles: { name: string; dip: number; azimuth: number; color: string }[];
  selected: string | null;
  onSelect(id: string): void;
  onCircle(circle: Circle): void;
}) {
  const { size, poles, kamb, middles, selected, onSelect, onCircle } = props;
  const [drag, setDrag] = useState<{ from: [number, number]; circle: Circle | null } | null>(null);
  const ref = useRef<SVGSVGElement>(null);
  const radius = size / 2 - 22;
  const [cx, cy] = [size / 2, size / 2];
  const place = ([x, y]: [number, number]): [number, number] => [cx + radius * x, cy - radius * y];
  const at = (e: React.PointerEvent): [number, number] => {
    const box = (ref.current as SVGSVGElement).getBoundingClientRect();
    return [(e.clientX - box.left - cx) / radius, -(e.clientY - box.top - cy) / radius];
  };
  const levels = useMemo(() => {
    if (!kamb || kamb.most < EVERY) return [];
    const values = Array.from(kamb.values, (v) => (Number.isNaN(v) ? -1 : v));
    const thresholds = Array.from({ length: Math.min(12, Math.floor(kamb.most / EVERY)) }, (_, n) => (n + 1) * EVERY);
    return contours().size([kamb.size, kamb.size]).thresholds(thresholds)(values);
  }, [kamb]);
  /** Contours count cells from half a cell outside of the first value. */
  const path = (rings: number[][][][]) =>
    rings
      .flat()
      .map(
        (ring) =>
          `M${ring
            .map(([b, a]) =>
              place([(2 * (b - 0.5)) / ((kamb?.size ?? 2) - 1) - 1, (2 * (a - 0.5)) / ((kamb?.size ?? 2) - 1) - 1])
                .map((v) => v.toFixed(1))
                .join(' '),
            )
            .join('L')}Z`,
      )
      .join('');
  const line = (points: [number, number][]) =>
    points
      .map(place)
      .map(([x, y], n) => {
        const before = n > 0 ? place(points[n - 1]) : null;
        return `${!before || Math.hypot(x - before[0], y - before[1]) > radius / 2 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`;
      })
      .join('');
  return (
    <svg
      ref={ref}
      width={size}
      height={size}
      className={css.disc}
      role="img"
      aria-label={`Net with ${poles.length} poles`}
      onPointerDown={(e) => {
        const p = at(e);
        if (!offNet(...p) || e.button !== 0) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        setDrag({ from: p, circle: null });
      }}
      onPointerMove={(e) => {
        if (!drag) return;
        const [from, to] = [offNet(...drag.from), offNet(...at(e))];
        if (!from || !to) return;
        const axis = ofPole([...from]);
        const within = angleBetween(axis, ofPole([...to]));
        setDrag({ ...drag, circle: within > 2 ? { ...axis, within: Math.min(60, within) } : null });
      }}
      onPointerUp={() => {
        if (drag?.circle) onCircle(drag.circle);
        setDrag(null);
      }}
    >
      <clipPath id="net-disc">
        <circle cx={cx} cy={cy} r={radius} />
      </clipPath>
      <circle cx={cx} cy={cy} r={radius} className={css.ground} />
      <g clipPath="url(#net-disc)">
        {levels.map((level, n) => (
          <path
            key={level.value}
            d={path(level.coordinates)}
            fill={bandColor('lichen', n + 1, levels.length + 2)}
            fillOpacity={0.75}
            stroke="none"
          >
            <title>{`${level.value} standard deviations above an even spread`}</title>
          </path>
        ))}
        {DIPS.map((dip) => (
          <circle
            key={dip}
            cx={cx}
            cy={cy}
            r={radius * Math.sqrt(1 - Math.cos((dip * Math.PI) / 180))}
            className={css.grid}
          />
        ))}
        {[0, 30, 60, 90, 120, 150].map((a) => {
          const [s, c] = [Math.sin((a * Math.PI) / 180), Math.cos((a * Math.PI) / 180)];
          return (
            <path
              key={a}
              d={`M${cx - radius * s} ${cy + radius * c}L${cx + radius * s} ${cy - radius * c}`}
              className={css.grid}
            />
          );
        })}
        {middles.map((m) => (
          <path
            key={m.name}
            d={line(ringOf({ ...m, within: 10 }))}
            fill="none"
            stroke={m.color}
            strokeWidth={1.5}
            strokeDasharray="4 3"
          >
            <title>{`${m.name}: ${planeText(m)}`}</title>
          </path>
        ))}
        {drag?.circle && <path d={line(ringOf(drag.circle))} fill="none" className={css.circle} />}
      </g>
      {poles.map((p) => {
        const [x, y] = place(p.at);
        return (
          <circle
            key={p.fault.id}
            data-pole={p.fault.name}
            cx={x}
            cy={y}
            r={(p.fault.id === selected ? 2.5 : 0) + 2.5 + 2.2 * Math.min(2.5, Math.sqrt(p.areaM2 / 1e6))}
            fill={p.color}
            fillOpacity={p.hidden ? 0.15 : 0.9}
            stroke={p.fault.id === selected ? 'var(--verdigris)' : 'var(--vellum)'}
            strokeWidth={p.fault.id === selected ? 2.5 : 0.8}
            className={css.pole}
            onPointerDown={(e) => e.stopPropagation()}
            onClick={() => onSelect(p.fault.id)}
          >
            <title>{`${p.fault.name}: ${planeText(p)}${p.hidden ? `; ${p.hidden}` : ''}`}</title>
          </circle>
        );
      })}
      {[
        ['N', 0, -1],
        ['E', 1, 0],
        ['S', 0, 1],
        ['W', -1, 0],
      ].map(([name, x, y]) => (
        <text
          key={name}
          x={cx + (radius + 11) * Number(x)}
          y={cy + (radius + 11) * Number(y) + 4}
          className={css.letter}
        >
          {name}
        </text>
      ))}
      {DIPS.map((dip) => (
        <text
          key={dip}
          x={cx + 3}
          y={cy - radius * Math.sqrt(1 - Math.cos((dip * Math.PI) / 180)) - 2}
          className={css.small}
        >
          {dip}°
        </text>
      ))}
    </svg>
  );
}
