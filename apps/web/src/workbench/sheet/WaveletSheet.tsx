import type { Wavelet } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { WaveletPlot } from '../../views/tie/WaveletPlot';
import css from './Sheet.module.css';

const [W, H] = [262, 84];

/** A wavelet in time, amplitude and phase; of an estimate also its signal-to-noise and what each length was worth. */
export function WaveletSheet({ wavelet }: { wavelet: Wavelet }) {
  const shape = useMemo(
    () => ({ stepMs: wavelet.stepMs, firstMs: wavelet.firstMs, samples: Float64Array.from(wavelet.samples) }),
    [wavelet],
  );
  const { estimate } = wavelet;
  if (!estimate) return <WaveletPlot wavelet={shape} />;
  const band = estimate.band.filter((b) => b.hz <= 100);
  const db = band.map((b) => 10 * Math.log10(Math.max(1e-3, b.signalToNoise)));
  const x = scaleLinear([0, 100], [34, W - 6]);
  const y = scaleLinear([-20, 20], [H - 18, 6]);
  const best = new Map<number, number>();
  for (const t of estimate.tried)
    best.set(t.lengthMs, Math.min(best.get(t.lengthMs) ?? Number.POSITIVE_INFINITY, t.error));
  return (
    <>
      <WaveletPlot wavelet={shape} />
      <h3>Signal to noise</h3>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        width={W}
        height={H}
        role="img"
        aria-label="Signal-to-noise by frequency"
        className={css.small}
      >
        {[-20, 0, 20].map((v) => (
          <g key={v}>
            <line x1={34} x2={W - 6} y1={y(v)} y2={y(v)} stroke="var(--ash)" />
            <text x={30} y={y(v) + 4} textAnchor="end">
              {v}
            </text>
          </g>
        ))}
        <path
          d={band
            .map((b, n) => `${n ? 'L' : 'M'}${x(b.hz).toFixed(1)} ${y(Math.max(-20, Math.min(20, db[n]))).toFixed(1)}`)
            .join('')}
          fill="none"
          stroke="var(--verdigris)"
          strokeWidth={1.6}
        />
        {[0, 50, 100].map((hz) => (
          <text key={hz} x={x(hz)} y={H - 4} textAnchor={hz === 100 ? 'end' : 'middle'}>
            {hz === 100 ? '100 Hz' : hz}
          </text>
        ))}
        <text x={4} y={12}>
          dB
        </text>
      </svg>
      <h3>Error by length, on parts left out</h3>
      <dl className={css.facts}>
        {[...best].map(([length, error]) => (
          <div key={length}>
            <dt>{length} ms</dt>
            <dd>{(100 * error).toFixed(0)} % of the trace</dd>
          </div>
        ))}
      </dl>
    </>
  );
}
