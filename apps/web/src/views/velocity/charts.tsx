import { timeOfDepth } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useRef } from 'react';
import { tryVelocity, useConversion } from '../../state/conversion';
import { useUnits } from '../../state/units';
import { Chart, type ChartSize, EDGES, pathOf } from '../common/Chart';
import { useLinkedCursor } from '../common/useLinkedCursor';
import type { Source } from './useSources';
import css from './Velocity.module.css';

interface ChartProps {
  size: ChartSize;
  sources: Source[];
  inUse: string | null;
  latest: number;
}

/** TWT down the chart. */
const timeScale = (size: ChartSize, latest: number) =>
  scaleLinear([0, latest], [EDGES.top, size.height - EDGES.bottom]);

const dashOf = (s: Source) => (s.mean ? '5 3' : s.kind === 'well' ? '1.5 2.5' : undefined);

/** Value of a curve at a time, by straight lines. */
function at(curve: [number, number][], t: number): number {
  let n = 0;
  while (n < curve.length - 2 && curve[n + 1][0] < t) n++;
  const [[t0, a], [t1, b]] = [curve[n], curve[n + 1] ?? curve[n]];
  if (t < t0 - 1e-6 || t > (curve.at(-1)?.[0] ?? 0) + 1e-6) return Number.NaN;
  return t1 > t0 ? a + ((b - a) * (t - t0)) / (t1 - t0) : a;
}

/** Where the linked cursor is, as a line across. */
function CursorLine({ y, size }: { y(t: number): number; size: ChartSize }) {
  const cursor = useLinkedCursor();
  const model = useConversion((s) => s.model);
  if (!cursor || cursor.vertical === null || cursor.domain === 'age') return null;
  const column = cursor.domain === 'depth' ? model?.column(cursor.x, cursor.y) : null;
  const t = cursor.domain === 'twt' ? cursor.vertical : column ? timeOfDepth(column, cursor.vertical) : Number.NaN;
  if (Number.isNaN(t)) return null;
  return <line x1={EDGES.left} x2={size.width - EDGES.right} y1={y(t)} y2={y(t)} className={css.cursor} />;
}

/** Velocities by time; those of the model in use are dragged sideways, layer by layer. */
export function VelocityChart({ size, sources, inUse, latest }: ChartProps) {
  const units = useUnits();
  const all = sources.flatMap((s) => s.velocity.filter(([t]) => t <= latest).map(([, v]) => v));
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const room = 0.05 * (high - low) + 1;
  const x = scaleLinear(
    [units.to(low - room, 'm/s'), units.to(high + room, 'm/s')],
    [EDGES.left, size.width - EDGES.right],
  );
  const y = timeScale(size, latest);
  const px = (v: number) => x(units.to(v, 'm/s'));
  const own = sources.find((s) => s.id === inUse);
  return (
    <figure className={css.chart}>
      <Chart
        size={size}
        x={x}
        y={y}
        xText={`velocity (${units.of('m/s')})`}
        yText="TWT (ms)"
        label="Velocity by time"
        held
      >
        {sources.map((s) => (
          <path
            key={s.id}
            d={pathOf(s.velocity.filter(([t]) => t <= latest).map(([t, v]) => [px(v), y(t)]))}
            fill="none"
            stroke={s.color}
            strokeWidth={s.id === inUse ? 2.6 : 1.4}
            strokeDasharray={dashOf(s)}
            opacity={strengthOf(s, sources)}
          >
            <title>{s.name}</title>
          </path>
        ))}
        <CursorLine y={y} size={size} />
        {own && <Handles source={own} x={px} y={y} back={(p) => units.from(x.invert(p), 'm/s')} latest={latest} />}
      </Chart>
    </figure>
  );
}

/** Names of boundaries above their times, one below the other where they lie close. */
function namesOf({ boundaries }: Source, y: (t: number) => number): { name: string; y: number }[] {
  let last = Number.NEGATIVE_INFINITY;
  return boundaries.map(({ name, t }) => {
    last = Math.max(y(t) - 3, last + 11);
    return { name, y: last };
  });
}

/** Nearer wells are drawn more strongly. */
const strengthOf = (source: Source, sources: Source[]): number =>
  source.kind === 'well' ? Math.max(0.3, 1 - 0.25 * sources.filter((s) => s.kind === 'well').indexOf(source)) : 1;

/** One handle for each layer of the model in use, at the middle of its time. */
function Handles(props: {
  source: Source;
  x(v: number): number;
  y(t: number): number;
  back(px: number): number;
  latest: number;
}) {
  const { source, x, y, back, latest } = props;
  const units = useUnits();
  const trial = useConversion((s) => s.trial);
  const parts = useConversion((s) => s.parts);
  const bases = parts?.layers.map((l) => l.base) ?? [];
  const from = useRef<{ layer: number; velocity: number; factor: number } | null>(null);
  const first = source.velocity.find(([t]) => t > 0)?.[0] ?? 0;
  const ends = bases.map((_, n) => source.boundaries[n]?.t ?? latest);
  return (
    <>
      {bases.map((base, layer) => {
        const top = layer > 0 ? ends[layer - 1] : first;
        const bottom = Math.min(latest, ends[layer]);
        if (bottom - top < 1) return null;
        const t = 0.5 * (top + bottom);
        const v = at(source.velocity, t);
        const now = trial?.layer === layer ? trial.factor : 1;
        const name = base ? `down to ${base}` : 'below';
        const set = (factor: number) => tryVelocity({ layer, factor: Math.max(0.5, Math.min(2, factor)) });
        return (
          <circle
            key={layer}
            cx={x(v)}
            cy={y(t)}
            r={6}
            className={css.handle}
            stroke={source.color}
            role="slider"
            tabIndex={0}
            aria-label={`Velocity ${name}`}
            aria-valuenow={Math.round(units.to(v, 'm/s'))}
            aria-valuetext={`${units.text(v, 'm/s', 0)}, ${now.toFixed(3)} times the model's`}
            onPointerDown={(event) => {
              event.stopPropagation();
              event.currentTarget.setPointerCapture(event.pointerId);
              from.current = { layer, velocity: v, factor: now };
            }}
            onPointerMove={(event) => {
              const began = from.current;
              const svg = event.currentTarget.ownerSVGElement;
              if (!began || began.layer !== layer || !svg) return;
              const wanted = back(event.clientX - svg.getBoundingClientRect().left);
              set((began.factor * wanted) / began.velocity);
            }}
            onPointerUp={() => {
              from.current = null;
            }}
            onKeyDown={(event) => {
              const by = { ArrowLeft: -0.005, ArrowRight: 0.005 }[event.key];
              if (event.key === 'Escape') return tryVelocity(null);
              if (!by) return;
              event.preventDefault();
              set(now + (event.shiftKey ? 4 : 1) * by);
            }}
          >
            <title>
              {name}: {units.text(v, 'm/s', 0)} in its middle. Drag it sideways; sections in depth follow.
            </title>
          </circle>
        );
      })}
      {namesOf(source, y).map((b) => (
        <text key={b.name} x={EDGES.left + 4} y={b.y} className={css.boundary}>
          {b.name}
        </text>
      ))}
    </>
  );
}

/** Depths by time, or less those of the model in use. */
export function DepthChart({ size, sources, inUse, latest, less }: ChartProps & { less: boolean }) {
  const units = useUnits();
  const own = sources.find((s) => s.id === inUse);
  const minus = less && own;
  const curves = sources.flatMap((s) => {
    const points = s.depth
      .filter(([t]) => t >= 0 && t <= latest)
      .map(([t, z]): [number, number] => [t, minus ? z - at(own.depth, t) : z])
      .filter(([, z]) => !Number.isNaN(z));
    return points.length > 1 ? [{ source: s, points }] : [];
  });
  const all = curves.flatMap((c) => c.points.map(([, z]) => z));
  const [low, high] = all.length > 0 ? [Math.min(...all), Math.max(...all)] : [0, 1];
  const room = minus ? 0.08 * (high - low) + 1 : 0;
  const x = scaleLinear(
    [units.to(minus ? low - room : Math.min(0, low), 'm'), units.to(high + room, 'm')],
    [EDGES.left, size.width - EDGES.right],
  );
  const y = timeScale(size, latest);
  return (
    <figure className={css.chart}>
      <Chart
        size={size}
        x={x}
        y={y}
        xText={minus ? `depth less that of ${own.name} (${units.of('m')})` : `depth (${units.of('m')})`}
        yText="TWT (ms)"
        label="Depth by time"
      >
        {minus && <line x1={x(0)} x2={x(0)} y1={EDGES.top} y2={size.height - EDGES.bottom} stroke="var(--ash)" />}
        {curves.map(({ source, points }) => (
          <path
            key={source.id}
            d={pathOf(points.map(([t, z]) => [x(units.to(z, 'm')), y(t)]))}
            fill="none"
            stroke={source.color}
            strokeWidth={source.id === inUse ? 2.6 : 1.4}
            strokeDasharray={dashOf(source)}
            opacity={strengthOf(source, sources)}
          >
            <title>{source.name}</title>
          </path>
        ))}
        <CursorLine y={y} size={size} />
      </Chart>
    </figure>
  );
}
