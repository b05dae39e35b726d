import type { SegyReport } from '@lithagon/core';
import { useEffect, useRef } from 'react';
import { colorMap } from '../../color/maps';
import { useUnits } from '../../state/units';
import { formatValue } from '../../views/common/look';
import css from './LoadSheet.module.css';

/** A sample section, how its samples are spread, and how far traces lie from the fitted grid. */
export function SegyPictures({ segy }: { segy: SegyReport }) {
  return (
    <>
      {segy.sample && <SampleSection sample={segy.sample} />}
      <div className={css.pair}>
        {segy.histogram && <Histogram histogram={segy.histogram} />}
        {segy.residuals && <Residuals residuals={segy.residuals} />}
      </div>
    </>
  );
}

/** A picture of samples from the middle of the file. */
function SampleSection({ sample }: { sample: NonNullable<SegyReport['sample']> }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const canvas = ref.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    canvas.width = sample.traces;
    canvas.height = sample.samples;
    const image = context.createImageData(sample.traces, sample.samples);
    const colors = colorMap('rust–bone–slate');
    const one = sample.data.some((v) => v < 0) ? -1 : 0;
    for (let t = 0; t < sample.traces; t++)
      for (let k = 0; k < sample.samples; k++) {
        const value = sample.data[t * sample.samples + k];
        if (Number.isNaN(value)) continue;
        const q = (value / (sample.clip || 1) - one) / (1 - one);
        const c = 3 * Math.max(0, Math.min(255, Math.round(q * 255)));
        image.data.set([colors[c], colors[c + 1], colors[c + 2], 255], 4 * (k * sample.traces + t));
      }
    context.putImageData(image, 0, 0);
  }, [sample]);
  return (
    <figure className={css.sample}>
      <canvas ref={ref} role="img" aria-label="Sample section from the middle of the file" />
      <figcaption>
        Middle line: {sample.traces} traces, {sample.samples} samples. Colours end at{' '}
        {sample.data.some((v) => v < 0) ? '±' : ''}
        {formatValue(sample.clip)}.
      </figcaption>
    </figure>
  );
}

const WIDTH = 210;
const HEIGHT = 84;

function Histogram({ histogram }: { histogram: NonNullable<SegyReport['histogram']> }) {
  const { counts, from, to } = histogram;
  const most = Math.max(...counts);
  const bar = WIDTH / counts.length;
  return (
    <figure className={css.chart}>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label="How samples are spread">
        {counts.map((count, n) => {
          // a logarithm shows the tails, where spikes are
          const h = count > 0 ? (Math.log10(1 + count) / Math.log10(1 + most)) * (HEIGHT - 2) : 0;
          return <rect key={n} x={n * bar} width={bar - 0.5} y={HEIGHT - h} height={h} fill="var(--verdigris)" />;
        })}
        {from < 0 && to > 0 && (
          <path d={`M${(WIDTH * -from) / (to - from)} 0V${HEIGHT}`} stroke="var(--ink)" strokeWidth={0.6} />
        )}
      </svg>
      <figcaption>
        Samples from {formatValue(from)} to {formatValue(to)}, counts on a logarithmic scale
      </figcaption>
    </figure>
  );
}

function Residuals({ residuals }: { residuals: NonNullable<SegyReport['residuals']> }) {
  const units = useUnits();
  const ref = useRef<HTMLCanvasElement>(null);
  const worst = Math.max(...residuals.map((r) => r[2]), 1e-9);
  useEffect(() => {
    const context = ref.current?.getContext('2d');
    if (!context) return;
    const [w, h] = [2 * WIDTH, 2 * HEIGHT];
    context.clearRect(0, 0, w, h);
    const of = (n: 0 | 1) => {
      const values = residuals.map((r) => r[n]);
      return [Math.min(...values), Math.max(...values, Math.min(...values) + 1)];
    };
    const [i, j] = [of(0), of(1)];
    const colors = colorMap('ember');
    const size = Math.max(3, Math.sqrt((w * h) / residuals.length));
    for (const [a, b, off] of residuals) {
      const c = 3 * Math.round(255 * (1 - Math.min(1, off / worst)));
      context.fillStyle = `rgb(${colors[c]} ${colors[c + 1]} ${colors[c + 2]})`;
      context.fillRect(
        ((b - j[0]) / (j[1] - j[0])) * (w - size),
        (1 - (a - i[0]) / (i[1] - i[0])) * (h - size),
        size,
        size,
      );
    }
  }, [residuals, worst]);
  return (
    <figure className={css.chart}>
      <canvas
        ref={ref}
        width={2 * WIDTH}
        height={2 * HEIGHT}
        role="img"
        aria-label="Distance of traces from the grid"
      />
      <figcaption>Distance from the fitted grid, inlines upwards; darkest {units.text(worst, 'm', 2)}</figcaption>
    </figure>
  );
}
