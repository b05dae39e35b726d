import { roseOf } from '@lithagon/core';
import css from './Net.module.css';
import type { Pole } from './poles';

const SECTORS = 18;

/** Strikes in sectors of ten degrees, by area; sets stand upon each other in their colours. */
export function Rose({ poles, size }: { poles: Pole[]; size: number }) {
  const [c, radius] = [size / 2, size / 2 - 16];
  const shown = poles.filter((p) => !p.hidden);
  const total = shown.reduce((a, p) => a + p.areaM2, 0) || 1;
  const sets = [...new Set(shown.map((p) => p.set))].sort((a, b) => a - b);
  const parts = sets.map((set) => {
    const own = shown.filter((p) => p.set === set);
    const share = own.reduce((a, p) => a + p.areaM2, 0) / total;
    return {
      color: own[0].color,
      values: roseOf(
        own,
        own.map((p) => p.areaM2),
        SECTORS,
      ).map((v) => v * share),
    };
  });
  const sums = Array.from({ length: SECTORS }, (_, n) => parts.reduce((a, p) => a + p.values[n], 0));
  const most = Math.max(...sums, 1e-9);
  /** Areas of sectors are as their parts. */
  const r = (v: number) => radius * Math.sqrt(v / most);
  const sector = (n: number, from: number, to: number, turn: number) => {
    const [a, b] = [n, n + 1].map((k) => ((k * 180) / SECTORS + turn) * (Math.PI / 180));
    const p = (angle: number, q: number) =>
      `${(c + q * Math.sin(angle)).toFixed(1)} ${(c - q * Math.cos(angle)).toFixed(1)}`;
    return `M${p(a, from)}L${p(a, to)}A${to} ${to} 0 0 1 ${p(b, to)}L${p(b, from)}A${from} ${from} 0 0 0 ${p(a, from)}Z`;
  };
  return (
    <svg width={size} height={size} role="img" aria-label="Rose of strikes, by area">
      <circle cx={c} cy={c} r={radius} className={css.grid} fill="none" />
      <circle cx={c} cy={c} r={radius / Math.SQRT2} className={css.grid} fill="none" />
      {sums.flatMap((_, n) => {
        let below = 0;
        return parts.flatMap(({ color, values }) => {
          const from = below;
          below += values[n];
          return values[n] > 0
            ? [0, 180].map((turn) => (
                <path
                  key={`${n} ${color} ${turn}`}
                  d={sector(n, r(from), r(below), turn)}
                  fill={color}
                  stroke="var(--vellum)"
                  strokeWidth={0.6}
                >
                  <title>{`Strike ${n * 10}° to ${n * 10 + 10}°: ${(100 * sums[n]).toFixed(0)} % of the area`}</title>
                </path>
              ))
            : [];
        });
      })}
      <text x={c} y={12} className={css.letter}>
        N
      </text>
      <text x={c} y={size - 2} className={css.small} textAnchor="middle">
        strikes by area: ring {(100 * most).toFixed(0)} %
      </text>
    </svg>
  );
}
