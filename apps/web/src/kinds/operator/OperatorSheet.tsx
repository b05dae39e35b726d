import type { InversionOperator } from '@lithagon/core';
import { scaleLinear, scaleLog } from 'd3-scale';
import { useMemo } from 'react';
import { pebble } from '../../color/maps';
import css from '../../workbench/sheet/Sheet.module.css';

const [W, H] = [262, 128];
const LOW_DB = -40;

const decibels = (values: number[], top: number) => values.map((v) => 20 * Math.log10(Math.max(1e-12, v / (top || 1))));

/** Spectra that an operator was designed from and what it makes, its gain, and how it looks in time. */
export function OperatorSheet({ object }: { object: InversionOperator }) {
  const { hz, seismic, gain, result, law, band, logs, samples, firstMs, stepMs } = object;
  const most = Math.min(hz[hz.length - 1], 1.3 * band[3]);
  const x = scaleLog([2, most], [34, W - 6]).clamp(true);
  const y = scaleLinear([LOW_DB, 12], [H - 18, 6]);
  const shown = useMemo(() => hz.map((f, n) => ({ f, n })).filter(({ f }) => f >= 2 && f <= most), [hz, most]);
  const inBand = shown.filter(({ f }) => f >= band[1] && f <= band[2]).map(({ n }) => n);
  const greatest = (values: number[]) => inBand.reduce((m, n) => Math.max(m, values[n]), 0);
  const line = (db: number[]) =>
    shown
      .map(({ f, n }, m) => `${m ? 'L' : 'M'}${x(f).toFixed(1)} ${y(Math.max(LOW_DB, Math.min(12, db[n]))).toFixed(1)}`)
      .join('');
  const aim = hz.map((f) => (f > 0 ? law.factor * f ** law.exponent : 0));
  const top = greatest(aim);
  const t = scaleLinear([firstMs, -firstMs], [34, W - 6]);
  const size = samples.reduce((m, v) => Math.max(m, Math.abs(v)), 0) || 1;
  const a = scaleLinear([-size, size], [64, 4]);
  const axis = (
    <>
      {[-40, -20, 0].map((v) => (
        <g key={v}>
          <line x1={34} x2={W - 6} y1={y(v)} y2={y(v)} stroke="var(--ash)" />
          <text x={30} y={y(v) + 4} textAnchor="end">
            {v}
          </text>
        </g>
      ))}
      {[2, 5, 10, 20, 50, 100]
        .filter((f) => f <= most)
        .map((f, n, all) => (
          <text key={f} x={x(f)} y={H - 4} textAnchor="middle">
            {n === all.length - 1 ? `${f} Hz` : f}
          </text>
        ))}
      <text x={4} y={12}>
        dB
      </text>
    </>
  );
  return (
    <>
      <h3>Impedance: logs, what is aimed at, what comes out</h3>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        width={W}
        height={H}
        role="img"
        aria-label="Spectra of impedance"
        className={css.small}
      >
        {axis}
        <rect
          x={x(band[1])}
          width={x(band[2]) - x(band[1])}
          y={6}
          height={H - 24}
          fill="var(--ash)"
          fillOpacity={0.35}
        />
        {logs.map((l, n) => (
          <path key={l.well} d={line(decibels(l.amplitude, top))} fill="none" stroke={pebble(n)} strokeOpacity={0.7}>
            <title>{l.well}</title>
          </path>
        ))}
        <path d={line(decibels(aim, top))} fill="none" stroke="var(--ink)" strokeDasharray="5 3" />
        <path d={line(decibels(result, top))} fill="none" stroke="var(--verdigris)" strokeWidth={1.8} />
      </svg>
      <ul className={css.keys}>
        {logs.map((l, n) => (
          <li key={l.well}>
            <i style={{ background: pebble(n) }} />
            {l.well}
          </li>
        ))}
        <li>
          <i style={{ background: 'var(--ink)' }} />
          aim
        </li>
        <li>
          <i style={{ background: 'var(--verdigris)' }} />
          result
        </li>
      </ul>
      <h3>Seismic and gain</h3>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        width={W}
        height={H}
        role="img"
        aria-label="Spectrum of the seismic and gain of the operator"
        className={css.small}
      >
        {axis}
        <path d={line(decibels(seismic, greatest(seismic)))} fill="none" stroke="var(--slate)" strokeWidth={1.6} />
        <path d={line(decibels(gain, greatest(gain)))} fill="none" stroke="var(--ochre)" strokeWidth={1.8} />
      </svg>
      <ul className={css.keys}>
        <li>
          <i style={{ background: 'var(--slate)' }} />
          seismic
        </li>
        <li>
          <i style={{ background: 'var(--ochre)' }} />
          gain
        </li>
      </ul>
      <h3>Operator in time</h3>
      <svg viewBox={`0 0 ${W} 84`} width={W} height={84} role="img" aria-label="Operator in time" className={css.small}>
        <line x1={34} x2={W - 6} y1={a(0)} y2={a(0)} stroke="var(--ash)" />
        <path
          d={samples.map((v, n) => `${n ? 'L' : 'M'}${t(firstMs + n * stepMs).toFixed(1)} ${a(v).toFixed(1)}`).join('')}
          fill="none"
          stroke="var(--ochre)"
          strokeWidth={1.5}
        />
        {[firstMs, 0, -firstMs].map((ms, n) => (
          <text key={ms} x={t(ms)} y={80} textAnchor={n === 0 ? 'start' : n === 1 ? 'middle' : 'end'}>
            {ms === 0 ? '0 ms' : ms}
          </text>
        ))}
      </svg>
    </>
  );
}
