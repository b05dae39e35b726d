import type { SyntheticGather } from '@lithagon/core';
import { useEffect, useRef, useState } from 'react';
import { colorMap } from '../../color/maps';
import { useArray } from '../../views/common/hooks';
import css from './Sheet.module.css';

const [W, H] = [262, 420];

/** Synthetic traces by angle, with the mean of them all at the right: a stack. */
export function GatherSheet({ gather }: { gather: SyntheticGather }) {
  const data = useArray(gather.id, gather.revision, gather.samples);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [range, setRange] = useState<[number, number]>([0, 1]);
  const count = gather.samples.shape[1];
  const traces = gather.anglesDeg.length;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!canvas.current || !context || !data) return;
    const limit = 0.5 * data.reduce((m, v) => Math.max(m, Math.abs(v)), 0) || 1;
    // a gap stands between the angles and their stack
    const [columns, rows] = [traces + 2, Math.min(count, 2 * H)];
    [canvas.current.width, canvas.current.height] = [columns, rows];
    const image = context.createImageData(columns, rows);
    const rgb = colorMap('rust–bone–slate');
    for (let r = 0; r < rows; r++) {
      const k = Math.floor((r * count) / rows);
      let sum = 0;
      for (let t = 0; t < traces; t++) sum += data[t * count + k];
      for (let t = 0; t < columns; t++) {
        if (t === traces) continue;
        const v = t < traces ? data[t * count + k] : sum / traces;
        const c = 3 * Math.round(255 * Math.max(0, Math.min(1, 0.5 + v / limit / 2)));
        image.data.set([rgb[c], rgb[c + 1], rgb[c + 2], 255], 4 * (r * columns + t));
      }
    }
    context.putImageData(image, 0, 0);
    setRange([gather.firstMs, gather.firstMs + gather.stepMs * (count - 1)]);
  }, [data, count, traces, gather]);
  const step = Math.max(1, Math.ceil(traces / 5));
  return (
    <>
      <h3>Traces by angle, and their stack</h3>
      <div className={css.gather} style={{ height: H + 34 }}>
        <canvas ref={canvas} aria-label="Synthetic gather" style={{ height: H, width: W - 40 }} />
        <svg width={W} height={H + 34} className={css.small} style={{ margin: 0 }} aria-hidden="true">
          {[0, 0.25, 0.5, 0.75, 1].map((f) => (
            <text key={f} x={34} y={8 + f * (H - 8)} textAnchor="end">
              {Math.round(range[0] + f * (range[1] - range[0]))}
            </text>
          ))}
          {gather.anglesDeg.map((a, n) =>
            n % step === 0 ? (
              <text key={a} x={40 + ((n + 0.5) * (W - 40)) / (traces + 2)} y={H + 14} textAnchor="middle">
                {a}°
              </text>
            ) : null,
          )}
          <text x={W} y={H + 14} textAnchor="end">
            stack
          </text>
          <text x={2} y={H + 30}>
            TWT (ms) down, angle across; + is harder
          </text>
        </svg>
      </div>
    </>
  );
}
