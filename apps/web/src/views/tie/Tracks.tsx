import type { Pin, Tie, TimeDepthRelation, Units } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useMemo, useRef } from 'react';
import { useUnits } from '../../state/units';
import { figure } from '../../ui/format';
import type { Size } from '../common/hooks';
import { Raster } from '../raster/Raster';
import { Curve, smallestAndLargest } from './Curve';
import { Drift } from './Drift';
import { addPin, Pins } from './Pins';
import { Limits, Reflections, Running, Wiggles } from './parts';
import { Spikes } from './Spikes';
import css from './Tie.module.css';
import { changeTie } from './useTie';
import { VelocityTrack } from './VelocityTrack';

const LEFT = 44;
const TOP = 34;
const BOTTOM = 18;
const GAP = 5;

/** What impedances are divided by, so that they are short numbers: a million, or in units of the field a thousand. */
const perImpedance = (units: Units) => (units.of('kg/m²s') === 'kg/m²s' ? 1e6 : 1e3);

/** Tracks from left to right, with the part of the width that each has. */
const TRACKS = [
  {
    id: 'logs',
    title: 'As logged',
    short: 'Logs',
    unit: (u: Units) => `${u.of('us/m')}, g/cm³`,
    part: 1,
  },
  { id: 'drift', title: 'Drift', short: 'Drift', unit: 'ms', part: 0.75 },
  { id: 'velocity', title: 'Velocity', short: 'Vel.', unit: (u: Units) => `${u.of('m/s')}, over 40 ms`, part: 0.9 },
  {
    id: 'impedance',
    title: 'Impedance',
    short: 'Imped.',
    // the whole unit of the field is too long for the track
    unit: (u: Units) => (perImpedance(u) === 1e6 ? '10⁶ kg/m²s' : 'kft/s·g/cm³'),
    part: 0.85,
  },
  { id: 'reflectivity', title: 'Reflectivity', short: 'Refl.', unit: '−0.2 to 0.2', part: 0.9 },
  { id: 'synthetic', title: 'Synthetic', short: 'Synth.', unit: 'drag; ⇧ click pins', part: 1.1 },
  {
    id: 'seismic',
    title: 'Seismic along the path',
    short: 'Seismic',
    unit: '8 bins each side, + is harder',
    part: 2.3,
  },
  { id: 'match', title: 'Match', short: 'Match', unit: '0 to 1', part: 0.7 },
] as const;

/** The chain drawn against two-way time: each track is one link. */
export function Tracks(props: {
  tie: Tie;
  window: [number, number];
  size: Size;
  draft: boolean;
  moved: { tvdss: number; driftMs: number }[];
  pins: Pin[];
  /** Part by which velocity may be changed. */
  bound: number;
  /** Other versions of the well’s tie, to compare with. */
  others: TimeDepthRelation[];
}) {
  const units = useUnits();
  const { tie, window, size, draft } = props;
  const { chain, panel } = tie;
  const height = size.height - TOP - BOTTOM;
  const y = scaleLinear(window, [TOP, TOP + height]);
  const all = TRACKS.reduce((s, t) => s + t.part, 0);
  const free = size.width - LEFT - 6 - GAP * (TRACKS.length - 1);
  let at = LEFT;
  const boxes = Object.fromEntries(
    TRACKS.map((t) => {
      const width = (free * t.part) / all;
      const box = { left: at, width };
      at += width + GAP;
      return [t.id, box];
    }),
  ) as Record<(typeof TRACKS)[number]['id'], { left: number; width: number }>;
  const boxOf = (id: keyof typeof boxes) => ({ ...boxes[id], top: TOP, height });
  const shift = chain.shiftMs;
  // logs are drawn where the tie as it stands puts them in time
  const { twt } = chain;
  const slowness = useMemo(
    () => chain.logs.slowness.secondsPerMetre.map((s) => units.to(s * 1e6, 'us/m')),
    [chain, units],
  );
  const density = useMemo(() => chain.logs.density.map((r) => r / 1000), [chain]);
  const logLimits = { sonic: smallestAndLargest(slowness), density: smallestAndLargest(density) };
  const inTime = useMemo(
    () =>
      Float64Array.from(chain.elastic.impedance, (_, n) => chain.elastic.firstMs + n * chain.elastic.stepMs + shift),
    [chain, shift],
  );
  const impedance = useMemo(
    () => chain.elastic.impedance.map((z) => units.to(z, 'kg/m²s') / perImpedance(units)),
    [chain, units],
  );
  const rms = useMemo(() => {
    let [sum, n] = [0, 0];
    for (const v of panel.data)
      if (!Number.isNaN(v)) {
        sum += v * v;
        n++;
      }
    return Math.sqrt(sum / Math.max(1, n));
  }, [panel]);
  const look = { map: 'rust–bone–slate' as const, low: -2.6 * rms, high: 2.6 * rms, reverse: false };
  const key = `${chain.shiftMs}${chain.phaseDeg}${chain.correlation}`;
  const beside = useMemo(() => ({ key: 'beside', data: panel.data, index: 0 }), [panel]);
  const repeated = useMemo(() => {
    const { values } = chain.synthetic;
    const data = new Float32Array(5 * values.length);
    for (let t = 0; t < 5; t++) data.set(values, t * values.length);
    return { key: `synthetic${key}`, data, index: 0 };
  }, [chain, key]);
  const synthetic = chain.synthetic;
  const drag = useRef<{ y: number; shift: number } | null>(null);
  const seismicVertical = useMemo(() => ({ first: panel.firstMs, step: panel.stepMs, count: panel.samples }), [panel]);
  const syntheticVertical = useMemo(
    () => ({ first: synthetic.firstMs, step: synthetic.stepMs, count: synthetic.values.length }),
    [synthetic],
  );
  return (
    <>
      <Raster
        name="synthetic"
        plane={repeated}
        traces={5}
        vertical={syntheticVertical}
        look={look}
        window={{ x0: 0, x1: 4, y0: window[0] - shift, y1: window[1] - shift }}
        box={boxOf('synthetic')}
      />
      <Raster
        name="seismic"
        plane={beside}
        traces={panel.offsets.length}
        vertical={seismicVertical}
        look={look}
        window={{ x0: 0, x1: panel.offsets.length - 1, y0: window[0], y1: window[1] }}
        box={boxOf('seismic')}
      />
      <svg className={css.overlay} width={size.width} height={size.height}>
        <title>Tie of the well, from logs to match, against two-way time</title>
        <text transform={`translate(11 ${TOP + height / 2}) rotate(-90)`} textAnchor="middle">
          TWT (ms)
        </text>
        {y.ticks(Math.max(3, height / 45)).map((t) => (
          <g key={t}>
            <line x1={LEFT - 4} x2={LEFT} y1={y(t)} y2={y(t)} className={css.tick} />
            <text x={LEFT - 7} y={y(t) + 4} textAnchor="end" className={css.number}>
              {t}
            </text>
          </g>
        ))}
        {TRACKS.map((t) => (
          <g key={t.id}>
            <text x={boxes[t.id].left} y={12} className={css.trackTitle}>
              {size.width > 620 ? t.title : t.short}
            </text>
            {size.width > 620 && (
              <text x={boxes[t.id].left} y={26} className={css.trackUnit}>
                {typeof t.unit === 'string' ? t.unit : t.unit(units)}
              </text>
            )}
            <rect x={boxes[t.id].left} y={TOP} width={boxes[t.id].width} height={height} className={css.frame} />
          </g>
        ))}
        <rect
          x={LEFT}
          y={y(tie.windowMs[0])}
          width={size.width - LEFT - 6}
          height={Math.max(0, y(tie.windowMs[1]) - y(tie.windowMs[0]))}
          className={css.window}
        />
        <Curve box={boxOf('logs')} y={y} times={twt} values={slowness} limits={logLimits.sonic} color="var(--slate)" />
        <Curve box={boxOf('logs')} y={y} times={twt} values={density} limits={logLimits.density} color="var(--ochre)" />
        <Spikes tie={tie} y={y} box={boxOf('logs')} limits={logLimits} />
        <Curve
          box={boxOf('impedance')}
          y={y}
          times={inTime}
          values={impedance}
          limits={smallestAndLargest(impedance)}
          color="var(--ink)"
        />
        <VelocityTrack tie={tie} y={y} box={boxOf('velocity')} bound={props.bound} others={props.others} />
        <Limits box={boxOf('logs')} limits={logLimits.sonic} places={0} />
        <Limits box={boxOf('impedance')} limits={smallestAndLargest(impedance)} places={1} />
        <Limits box={boxOf('match')} limits={[0, 1]} places={0} />
        <Reflections tie={tie} times={inTime} y={y} box={boxOf('reflectivity')} />
        <Drift tie={tie} y={y} box={boxOf('drift')} draft={draft} moved={props.moved} others={props.others} />
        <Wiggles
          box={boxOf('synthetic')}
          y={y}
          first={synthetic.firstMs + shift}
          step={synthetic.stepMs}
          traces={[0.5, 1.5, 2.5, 3.5].map((x) => ({ x: x / 4, values: synthetic.values }))}
          scale={boxes.synthetic.width / 14 / rms}
        />
        <Wiggles
          box={boxOf('seismic')}
          y={y}
          first={panel.firstMs}
          step={panel.stepMs}
          traces={panel.offsets.map((_, n) => ({
            x: n / (panel.offsets.length - 1),
            values: panel.data.subarray(n * panel.samples, (n + 1) * panel.samples),
          }))}
          scale={boxes.seismic.width / 60 / rms}
        />
        <line
          x1={boxes.seismic.left + boxes.seismic.width / 2}
          x2={boxes.seismic.left + boxes.seismic.width / 2}
          y1={TOP}
          y2={TOP + height}
          className={css.path}
        />
        <Running tie={tie} y={y} box={boxOf('match')} />
        {tie.tops
          .filter((t) => t.twt > window[0] && t.twt < window[1])
          .map((t) => (
            <g key={t.name} className={css.top}>
              <line x1={LEFT} x2={size.width - 6} y1={y(t.twt)} y2={y(t.twt)} />
              <text x={LEFT + 4} y={y(t.twt) - 3}>
                {t.name}
              </text>
            </g>
          ))}
        <Pins tie={tie} y={y} box={boxOf('synthetic')} draft={draft} pins={props.pins} />
        {draft && (
          <rect
            x={boxes.synthetic.left}
            y={TOP}
            width={boxes.synthetic.width}
            height={height}
            className={css.grip}
            role="slider"
            aria-label="Shift of the synthetic"
            aria-valuenow={Math.round(shift)}
            aria-valuetext={`${figure(shift)} ms`}
            tabIndex={0}
            onKeyDown={(e) => {
              const by = { ArrowUp: -1, ArrowDown: 1 }[e.key];
              if (!by) return;
              e.preventDefault();
              changeTie({ shift: 'typed', shiftMs: Math.round(2 * (shift + by * (e.shiftKey ? 4 : 0.5))) / 2 });
            }}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              if (e.shiftKey) {
                const rect = e.currentTarget.getBoundingClientRect();
                const time = window[0] + ((e.clientY - rect.top) / height) * (window[1] - window[0]);
                addPin(tie, props.pins, time);
                return;
              }
              drag.current = { y: e.clientY, shift };
            }}
            onPointerMove={(e) => {
              if (!drag.current) return;
              const moved = ((e.clientY - drag.current.y) / height) * (window[1] - window[0]);
              const wanted = Math.max(-100, Math.min(100, drag.current.shift + moved));
              changeTie({ shift: 'typed', shiftMs: Math.round(2 * wanted) / 2 });
            }}
            onPointerUp={() => {
              drag.current = null;
            }}
          />
        )}
      </svg>
    </>
  );
}
