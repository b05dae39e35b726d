import type { Tie } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useMemo, useRef } from 'react';
import type { Size } from '../common/hooks';
import { Raster } from '../raster/Raster';
import { Curve, smallestAndLargest } from './Curve';
import css from './Tie.module.css';
import { changeTie } from './useTie';

const LEFT = 44;
const TOP = 34;
const BOTTOM = 18;
const GAP = 5;

/** Tracks from left to right, with the part of the width that each has. */
const TRACKS = [
  { id: 'logs', title: 'As logged', short: 'Logs', unit: 'µs/m, g/cm³', part: 1 },
  { id: 'drift', title: 'Drift', short: 'Drift', unit: 'ms', part: 0.75 },
  { id: 'impedance', title: 'Impedance', short: 'Imped.', unit: '10⁶ kg/m²s', part: 0.95 },
  { id: 'reflectivity', title: 'Reflectivity', short: 'Refl.', unit: '−0.2 to 0.2', part: 0.9 },
  { id: 'synthetic', title: 'Synthetic', short: 'Synth.', unit: 'drag to shift', part: 1.1 },
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
}) {
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
  const twt = useMemo(() => chain.calibration.twt.map((t) => t + shift), [chain, shift]);
  const slowness = useMemo(() => chain.logs.slowness.secondsPerMetre.map((s) => s * 1e6), [chain]);
  const density = useMemo(() => chain.logs.density.map((r) => r / 1000), [chain]);
  const inTime = useMemo(
    () =>
      Float64Array.from(chain.elastic.impedance, (_, n) => chain.elastic.firstMs + n * chain.elastic.stepMs + shift),
    [chain, shift],
  );
  const impedance = useMemo(() => chain.elastic.impedance.map((z) => z / 1e6), [chain]);
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
                {t.unit}
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
        <Curve
          box={boxOf('logs')}
          y={y}
          times={twt}
          values={slowness}
          limits={smallestAndLargest(slowness)}
          color="var(--slate)"
        />
        <Curve
          box={boxOf('logs')}
          y={y}
          times={twt}
          values={density}
          limits={smallestAndLargest(density)}
          color="var(--ochre)"
        />
        <Curve
          box={boxOf('impedance')}
          y={y}
          times={inTime}
          values={impedance}
          limits={smallestAndLargest(impedance)}
          color="var(--ink)"
        />
        <Limits box={boxOf('logs')} limits={smallestAndLargest(slowness)} places={0} />
        <Limits box={boxOf('impedance')} limits={smallestAndLargest(impedance)} places={1} />
        <Limits box={boxOf('match')} limits={[0, 1]} places={0} />
        <Reflections tie={tie} times={inTime} y={y} box={boxOf('reflectivity')} />
        <Drift tie={tie} y={y} box={boxOf('drift')} draft={draft} moved={props.moved} />
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
            aria-valuetext={`${shift.toFixed(1)} ms`}
            tabIndex={0}
            onKeyDown={(e) => {
              const by = { ArrowUp: -1, ArrowDown: 1 }[e.key];
              if (!by) return;
              e.preventDefault();
              changeTie({ shift: 'typed', shiftMs: Math.round(2 * (shift + by * (e.shiftKey ? 4 : 0.5))) / 2 });
            }}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
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

interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}
type Scale = ReturnType<typeof scaleLinear<number, number>>;

/** The values at the two sides of a track. */
function Limits({ box, limits, places }: { box: Box; limits: [number, number]; places: number }) {
  const y = box.top + box.height + 12;
  const text = (v: number) => v.toFixed(places).replace('-', '−');
  return (
    <>
      <text x={box.left} y={y} className={css.number}>
        {text(limits[0])}
      </text>
      <text x={box.left + box.width} y={y} textAnchor="end" className={css.number}>
        {text(limits[1])}
      </text>
    </>
  );
}

/** Reflection coefficients as bars: harder to the right. */
function Reflections({ tie, times, y, box }: { tie: Tie; times: Float64Array; y: Scale; box: Box }) {
  const r = tie.chain.elastic.reflectivity;
  const [from, to] = y.domain();
  const middle = box.left + box.width / 2;
  let up = '';
  let down = '';
  for (let n = 0; n < r.length; n++) {
    if (times[n] < from || times[n] > to || Math.abs(r[n]) < 0.003) continue;
    const x = middle + Math.max(-0.5, Math.min(0.5, r[n] / 0.4)) * box.width;
    const bar = `M${middle.toFixed(1)} ${y(times[n]).toFixed(1)}H${x.toFixed(1)}`;
    if (r[n] > 0) up += bar;
    else down += bar;
  }
  return (
    <g fill="none" strokeWidth={1.2}>
      <line x1={middle} x2={middle} y1={box.top} y2={box.top + box.height} className={css.tick} />
      <path d={up} stroke="#9c4a2b" />
      <path d={down} stroke="#4a6a86" />
    </g>
  );
}

/** Drift of the sonic from the checkshots: points are checkshots, the line is the correction, its knees can be moved. */
function Drift(props: { tie: Tie; y: Scale; box: Box; draft: boolean; moved: { tvdss: number; driftMs: number }[] }) {
  const { tie, y, box, draft, moved } = props;
  const { calibration, logs } = tie.chain;
  const held = useRef<number | null>(null);
  const twtAt = (tvdss: number) => {
    const z = logs.slowness.tvdss;
    let n = 0;
    while (n < z.length - 1 && z[n] < tvdss) n++;
    return calibration.twt[n] + tie.chain.shiftMs;
  };
  // relative to the first knee, which carries the time at which the sonic begins
  const zero = calibration.knees[0].driftMs;
  const values = [...calibration.drift, ...calibration.knees].map((d) => d.driftMs - zero);
  const most = Math.max(4, ...values.map(Math.abs)) * 1.25;
  const x = scaleLinear([-most, most], [box.left, box.left + box.width]);
  const knee = (n: number, driftMs: number) => {
    const { tvdss } = calibration.knees[n];
    changeTie({ knees: [...moved.filter((m) => Math.abs(m.tvdss - tvdss) > 0.5), { tvdss, driftMs }] });
  };
  return (
    <g>
      <line x1={x(0)} x2={x(0)} y1={box.top} y2={box.top + box.height} className={css.tick} />
      <Limits box={box} limits={[-most, most]} places={0} />
      <clipPath id="drift-box">
        <rect x={box.left} y={box.top} width={box.width} height={box.height} />
      </clipPath>
      <g clipPath="url(#drift-box)">
        {calibration.drift.map((d) => (
          <circle key={d.tvdss} cx={x(d.driftMs - zero)} cy={y(twtAt(d.tvdss))} r={2.4} className={css.shot} />
        ))}
        <path
          d={calibration.knees.map((k, n) => `${n ? 'L' : 'M'}${x(k.driftMs - zero)} ${y(twtAt(k.tvdss))}`).join('')}
          className={css.driftLine}
        />
        {calibration.knees.map((k, n) => (
          <rect
            key={k.tvdss}
            x={x(k.driftMs - zero) - 4}
            y={y(twtAt(k.tvdss)) - 4}
            width={8}
            height={8}
            className={`${css.knee} ${moved.some((m) => Math.abs(m.tvdss - k.tvdss) < 0.5) ? css.moved : ''}`}
            onPointerDown={(e) => {
              if (!draft) return;
              e.stopPropagation();
              e.currentTarget.setPointerCapture(e.pointerId);
              held.current = n;
            }}
            onPointerMove={(e) => {
              if (held.current !== n) return;
              const left = e.currentTarget.ownerSVGElement?.getBoundingClientRect().left ?? 0;
              knee(n, x.invert(e.clientX - left) + zero);
            }}
            onPointerUp={() => {
              held.current = null;
            }}
            onDoubleClick={(e) => {
              e.stopPropagation();
              changeTie({ knees: moved.filter((m) => Math.abs(m.tvdss - k.tvdss) > 0.5) });
            }}
          >
            <title>{`${(k.driftMs - zero).toFixed(1)} ms at ${k.tvdss.toFixed(0)} m TVDSS${draft ? '; drag to move, double-click to let go' : ''}`}</title>
          </rect>
        ))}
      </g>
    </g>
  );
}

function Wiggles(props: {
  box: Box;
  y: Scale;
  first: number;
  step: number;
  traces: { x: number; values: ArrayLike<number> }[];
  scale: number;
}) {
  const { box, y, first, step } = props;
  const [from, to] = y.domain();
  return (
    <g className={css.wiggle}>
      {props.traces.map(({ x, values }) => {
        const middle = box.left + x * box.width;
        let d = '';
        for (let k = Math.max(0, Math.ceil((from - first) / step)); k < values.length; k++) {
          const t = first + k * step;
          if (t > to) break;
          if (Number.isNaN(values[k])) continue;
          const at = Math.max(box.left, Math.min(box.left + box.width, middle + values[k] * props.scale));
          d += `${d ? 'L' : 'M'}${at.toFixed(1)} ${y(t).toFixed(1)}`;
        }
        return <path key={x} d={d} />;
      })}
    </g>
  );
}

function Running({ tie, y, box }: { tie: Tie; y: Scale; box: Box }) {
  const { running } = tie.chain;
  const [from, to] = y.domain();
  let d = '';
  let [first, last] = [0, 0];
  for (let k = 0; k < running.values.length; k++) {
    const t = running.firstMs + k * running.stepMs;
    if (t < from || t > to || Number.isNaN(running.values[k])) continue;
    if (!d) first = y(t);
    last = y(t);
    d += `L${(box.left + Math.max(0, running.values[k]) * box.width).toFixed(1)} ${y(t).toFixed(1)}`;
  }
  return <path d={d ? `M${box.left} ${first}${d}L${box.left} ${last}Z` : ''} className={css.running} />;
}
