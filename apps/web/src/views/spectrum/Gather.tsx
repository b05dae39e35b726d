import { blurOf, type FrequencySpec, smearOf, type Volume } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useEffect, useState } from 'react';
import { forViews, unwrap } from '../../compute/pool';
import { useCursor } from '../../state/cursor';
import { useProject } from '../../state/project';
import { Raster } from '../raster/Raster';
import type { ChartBox } from './Chart';
import css from './Spectrum.module.css';

/** Steps of frequency in a gather, Hz. */
const EVERY = 2;
/** How long the pointer must rest before the trace under it is looked at, ms. */
const REST = 60;
const FOOT = 18;

/** A trace's magnitudes over time and frequency, where the pointer is or where sections run through; the smear of the transform is drawn at the pointer. */
export function Gather(props: {
  volume: Volume;
  spec: FrequencySpec;
  /** Where to look while no pointer is in a view. */
  place: [number, number];
  /** Times in view, ms. */
  times: [number, number];
  velocity: number;
  last: number;
  box: ChartBox;
}) {
  const { volume, spec, times, velocity, last, box } = props;
  const projectId = useProject((s) => s.id);
  const cursor = useCursor((s) => s.at);
  const [x, y] = cursor ? [cursor.x, cursor.y] : props.place;
  const [pointer, setPointer] = useState<{ hz: number; ms: number } | null>(null);
  const [gather, setGather] = useState<{ key: string; data: Float32Array; high: number } | null>(null);
  const count = Math.max(2, Math.floor(last / EVERY));
  const key = `${volume.id}@${volume.revision} ${Math.round(x)} ${Math.round(y)} ${JSON.stringify(spec)} ${count}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for what is looked at
  useEffect(() => {
    let wanted = true;
    const timer = setTimeout(() => {
      const hz = Array.from({ length: count }, (_, n) => (n + 1) * EVERY);
      void forViews()
        .frequencies(projectId, volume, [x, y], hz, spec)
        .then((outcome) => {
          if (!wanted || !outcome.ok) return;
          const data = unwrap(outcome);
          let high = 0;
          for (const v of data) if (v > high) high = v;
          setGather({ key, data, high: high || 1 });
        });
    }, REST);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [key, projectId]);
  const { left, right, width, height } = box;
  const inner = { left, top: 4, width: Math.max(10, width - left - right), height: Math.max(10, height - FOOT) };
  const across = scaleLinear([0, last], [left, left + inner.width]);
  const down = scaleLinear(times, [inner.top, inner.top + inner.height]);
  // what the pointer is at in another view of time, else in this one
  const at =
    pointer ??
    (cursor?.domain === 'twt' && cursor.vertical !== null ? { hz: null as number | null, ms: cursor.vertical } : null);
  const empty = gather?.data.every(Number.isNaN);
  return (
    <div
      className={css.gather}
      style={{ height }}
      data-testid="frequency-gather"
      onPointerMove={(event) => {
        const rect = event.currentTarget.getBoundingClientRect();
        const hz = across.invert(event.clientX - rect.left);
        const ms = down.invert(event.clientY - rect.top);
        setPointer(hz > 0 && hz < last && ms > times[0] && ms < times[1] ? { hz, ms } : null);
      }}
      onPointerLeave={() => setPointer(null)}
    >
      {gather && !empty && (
        <Raster
          name="gather"
          plane={{ key: gather.key, data: gather.data, index: 0 }}
          traces={gather.data.length / volume.vertical.count}
          vertical={volume.vertical}
          look={{ map: 'ember', low: 0, high: gather.high, reverse: false }}
          window={{ x0: -1, x1: last / EVERY - 1, y0: times[0], y1: times[1] }}
          box={inner}
        />
      )}
      <svg className={css.over} width={width} height={height} aria-hidden="true">
        <rect x={inner.left} y={inner.top} width={inner.width} height={inner.height} className={css.frame} />
        {down.ticks(Math.max(2, Math.round(height / 45))).map((t) => (
          <g key={t}>
            <path d={`M${left - 4} ${down(t)}h4`} className={css.tick} />
            <text x={left - 6} y={down(t) + 4} textAnchor="end" className={css.number}>
              {t}
            </text>
          </g>
        ))}
        <text transform={`translate(11 ${inner.top + inner.height / 2}) rotate(-90)`} textAnchor="middle">
          TWT (ms)
        </text>
        {at && at.hz === null && at.ms > times[0] && at.ms < times[1] && (
          <path d={`M${left} ${down(at.ms)}h${inner.width}`} className={css.pointer} />
        )}
        {at && at.hz !== null && (
          <>
            <ellipse
              cx={across(at.hz)}
              cy={down(at.ms)}
              rx={Math.abs(across(blurOf(spec, at.hz)) - across(0)) / 2}
              ry={Math.abs(down(smearOf(spec, at.hz)) - down(0)) / 2}
              className={css.smear}
            />
            <text
              x={Math.min(across(at.hz) + 8, width - right - 150)}
              y={Math.max(16, down(at.ms) - 6)}
              className={css.onData}
            >
              {at.hz.toFixed(0)} Hz: ± {(smearOf(spec, at.hz) / 2).toFixed(0)} ms, ±{' '}
              {((smearOf(spec, at.hz) * velocity) / 4000).toFixed(0)} m
            </text>
          </>
        )}
        <text x={left} y={height - 3}>
          {empty ? 'There is no trace at the pointer.' : cursor ? 'trace at the pointer' : 'trace where sections cross'}
        </text>
      </svg>
    </div>
  );
}
