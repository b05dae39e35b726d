import { type WaveletShape, waveletSpectrum } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { figure } from '../../ui/format';
import { StripPlot } from './StripPlot';
import css from './Tie.module.css';

const W = 262;
const H = 132;

/** A wavelet in time, and its amplitude and phase by frequency. */
export function WaveletPlot({ wavelet }: { wavelet: WaveletShape }) {
  const spectrum = useMemo(() => waveletSpectrum(wavelet, 100), [wavelet]);
  const last = wavelet.firstMs + wavelet.stepMs * (wavelet.samples.length - 1);
  const most = wavelet.samples.reduce((m, v) => Math.max(m, Math.abs(v)), 0) || 1;
  const t = scaleLinear([wavelet.firstMs, last], [4, 118]);
  const a = scaleLinear([-most, most], [H - 20, 4]);
  const f = scaleLinear([0, 100], [138, W - 4]);
  const amplitude = scaleLinear([0, 1], [62, 4]);
  const phase = scaleLinear([-180, 180], [H - 20, 70]);
  const line = (points: [number, number][]) =>
    points.map(([x, y], n) => `${n ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');
  // phase says nothing where there is no amplitude
  const heard = spectrum.hz.map((_, n) => n).filter((n) => spectrum.amplitude[n] > 0.15);
  return (
    <StripPlot title="Wavelet" note="time; amplitude and phase">
      <svg viewBox={`0 0 ${W} ${H}`} className={css.wavelet} role="img" aria-label="Wavelet and its spectra">
        <line x1={4} x2={118} y1={a(0)} y2={a(0)} className={css.tick} />
        <path
          d={line(Array.from(wavelet.samples, (v, n) => [t(wavelet.firstMs + n * wavelet.stepMs), a(v)]))}
          fill="none"
          stroke="var(--ochre)"
          strokeWidth={1.5}
        />
        {[wavelet.firstMs, 0, last].map((ms, n) => (
          <text key={ms} x={t(ms)} y={H - 7} textAnchor={n === 0 ? 'start' : n === 1 ? 'middle' : 'end'}>
            {ms === 0 ? '0 ms' : figure(ms, 0)}
          </text>
        ))}
        <rect x={138} y={4} width={W - 142} height={58} className={css.frame} />
        <path
          d={`${line(spectrum.hz.map((hz, n) => [f(hz), amplitude(spectrum.amplitude[n])]))}L${f(100)} 62L${f(0)} 62Z`}
          fill="color-mix(in oklab, var(--ochre) 22%, transparent)"
          stroke="var(--ochre)"
        />
        <rect x={138} y={70} width={W - 142} height={H - 90} className={css.frame} />
        <line x1={138} x2={W - 4} y1={phase(0)} y2={phase(0)} className={css.tick} />
        <path
          d={line(heard.map((n) => [f(spectrum.hz[n]), phase(spectrum.phaseDeg[n])]))}
          fill="none"
          stroke="var(--verdigris)"
          strokeWidth={1.5}
        />
        <text x={134} y={12} textAnchor="end">
          1
        </text>
        <text x={134} y={78} textAnchor="end">
          ±180°
        </text>
        {[0, 50, 100].map((hz) => (
          <text key={hz} x={f(hz)} y={H - 7} textAnchor={hz === 0 ? 'start' : hz === 50 ? 'middle' : 'end'}>
            {hz === 100 ? '100 Hz' : hz}
          </text>
        ))}
      </svg>
    </StripPlot>
  );
}
