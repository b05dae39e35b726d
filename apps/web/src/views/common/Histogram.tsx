import type { SeismicLine, Volume } from '@lithagon/core';
import { useRef } from 'react';
import type { FieldLook } from '../raster/field';
import { shades } from '../raster/processor';
import css from './DisplayForm.module.css';
import { formatValue } from './look';

const [WIDTH, HEIGHT] = [236, 52];

/** How many samples lie between values: bars of equal parts of the samples, as high as they are narrow. */
export function barsOf(statistics: Volume['statistics']): { from: number; to: number; height: number }[] {
  const known = Object.entries(statistics.percentiles)
    .map(([p, value]) => ({ p: Number(p), value }))
    .sort((a, b) => a.p - b.p);
  const all = [{ p: 0, value: statistics.min }, ...known, { p: 100, value: statistics.max }];
  const bars = all.slice(1).flatMap(({ p, value }, n) => {
    const before = all[n];
    return value > before.value
      ? [{ from: before.value, to: value, height: (p - before.p) / (value - before.value) }]
      : [];
  });
  const most = Math.max(...bars.map((b) => b.height), 1e-12);
  return bars.map((b) => ({ ...b, height: b.height / most }));
}

/** How the samples of a volume are spread, under its colours; the ends of these are dragged. */
export function Histogram(props: {
  volume: Volume | SeismicLine;
  look: FieldLook;
  onEnds(ends: [number, number]): void;
}) {
  const { volume, look, onEnds } = props;
  const held = useRef<'low' | 'high' | null>(null);
  const bars = barsOf(volume.statistics);
  const symmetric = look.low === -look.high;
  const reach = Math.max(
    1.6 * Math.max(Math.abs(look.low), Math.abs(look.high)),
    Math.abs(volume.statistics.absolute['99'] ?? 0),
  );
  const [low, high] = symmetric
    ? [-reach, reach]
    : [
        Math.min(volume.statistics.min, look.low),
        Math.max(volume.statistics.max, look.high, volume.statistics.min + 1e-9),
      ];
  const x = (v: number) => ((v - low) / (high - low)) * WIDTH;
  const colors = shades(look);
  const colorAt = (v: number) => {
    const part = Math.max(0, Math.min(1, (v - look.low) / (look.high - look.low)));
    const word = colors[Math.round(part * (colors.length - 1))];
    return `rgb(${word & 255} ${(word >> 8) & 255} ${(word >> 16) & 255})`;
  };
  const drag = (event: React.PointerEvent<SVGSVGElement>) => {
    if (!held.current) return;
    const rect = event.currentTarget.getBoundingClientRect();
    const v = low + ((event.clientX - rect.left) / rect.width) * (high - low);
    if (symmetric) onEnds([-Math.max(1e-9, Math.abs(v)), Math.max(1e-9, Math.abs(v))]);
    else if (held.current === 'low' && v < look.high) onEnds([v, look.high]);
    else if (held.current === 'high' && v > look.low) onEnds([look.low, v]);
  };
  return (
    <svg
      className={css.histogram}
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={`Samples from ${formatValue(volume.statistics.min)} to ${formatValue(volume.statistics.max)}; colours from ${formatValue(look.low)} to ${formatValue(look.high)}`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        const rect = event.currentTarget.getBoundingClientRect();
        const at = event.clientX - rect.left;
        held.current = Math.abs(at - x(look.low)) < Math.abs(at - x(look.high)) ? 'low' : 'high';
        drag(event);
      }}
      onPointerMove={drag}
      onPointerUp={() => {
        held.current = null;
      }}
    >
      {bars.map((b) => {
        const [from, to] = [Math.max(0, x(b.from)), Math.min(WIDTH, x(b.to))];
        return to > from ? (
          <rect
            key={b.from}
            x={from}
            y={HEIGHT - 4 - b.height * (HEIGHT - 10)}
            width={to - from + 0.4}
            height={b.height * (HEIGHT - 10)}
            fill={colorAt((b.from + b.to) / 2)}
            stroke="var(--slate)"
            strokeOpacity={0.35}
            strokeWidth={0.6}
          />
        ) : null;
      })}
      <path d={`M0 ${HEIGHT - 4}H${WIDTH}`} stroke="var(--slate)" strokeWidth={0.8} />
      {[look.low, look.high].map((v, n) => (
        <path key={n} d={`M${x(v)} 2V${HEIGHT}`} stroke="var(--ochre)" strokeWidth={2} />
      ))}
    </svg>
  );
}
