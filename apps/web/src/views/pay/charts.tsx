import {
  type BinGrid,
  cornersOf,
  netOf,
  type PayParams,
  type PayScale,
  type PayWork,
  quantityFacts,
  toMap,
} from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useMemo, useRef } from 'react';
import { useUnits } from '../../state/units';
import { Chart, type ChartSize, EDGES, pathOf } from '../common/Chart';
import { ColorBar } from '../common/ColorBar';
import { toScreen } from '../map/frame';
import { MapRaster } from '../map/MapRaster';

interface Props {
  work: PayWork;
  scale: PayScale;
  params: PayParams;
  size: ChartSize;
}

/** Most dots that are drawn. */
const DOTS = 3000;
const inX = (size: ChartSize): [number, number] => [EDGES.left, Math.max(EDGES.left + 1, size.width - EDGES.right)];
const inY = (size: ChartSize): [number, number] => [Math.max(EDGES.top + 1, size.height - EDGES.bottom), EDGES.top];
const WELL = { fill: 'var(--ochre)', stroke: 'var(--ink)' } as const;

/** Mean amplitude against apparent thickness, with the tuning curve of a bed of nothing but pay: it is dragged to set the scale. */
export function Tuning({
  work,
  scale,
  size,
  onScale,
}: Props & { onScale: ((scale: number, done: boolean) => void) | null }) {
  const { lobes, tuning, wedge } = work.measures;
  const shown = useMemo(() => {
    const own = lobes.flatMap((l, n) => (l && work.inside[n] ? [l] : []));
    const every = Math.max(1, Math.ceil(own.length / DOTS));
    return own.filter((_, n) => n % every === 0);
  }, [lobes, work.inside]);
  const [most, thick] = useMemo(() => {
    const averages = shown.map((l) => l.average).sort((a, b) => a - b);
    const times = shown.map((l) => l.apparentMs).sort((a, b) => a - b);
    return [averages[Math.floor(0.995 * averages.length)] ?? 1, times[Math.floor(0.995 * times.length)] ?? 60];
  }, [shown]);
  const x = scaleLinear([0, 1.15 * thick], inX(size));
  const y = scaleLinear([0, 1.5 * most], inY(size));
  const dots = useMemo(
    () => shown.map((l) => `M${x(l.apparentMs).toFixed(1)} ${y(l.average).toFixed(1)}h0`).join(''),
    [shown, x, y],
  );
  const at = wedge.thicknessMs.map((t) => t).filter((t) => t <= 1.15 * thick);
  const curve = pathOf(
    [tuning.least, ...at.filter((t) => t > tuning.least)].map((t) => [x(t), y(scale.scale * tuning.average(t))]),
  );
  const drag = useRef<{ from: number; scale: number } | null>(null);
  const moved = (clientY: number) => {
    const { from, scale: begun } = drag.current as { from: number; scale: number };
    const perPixel = (1.5 * most) / (size.height - EDGES.top - EDGES.bottom);
    const top = tuning.average(thick / 2) || 1;
    return Math.max(1e-6, begun + ((from - clientY) * perPixel) / top);
  };
  return (
    <Chart
      size={size}
      x={x}
      y={y}
      xText="apparent thickness, ms"
      yText="mean relative impedance"
      label="Amplitude against apparent thickness"
    >
      <path d={dots} stroke="var(--slate)" strokeOpacity={0.4} strokeWidth={2.4} strokeLinecap="round" />
      <path d={curve} fill="none" stroke="var(--verdigris)" strokeWidth={2} />
      <path
        d={curve}
        fill="none"
        stroke="transparent"
        strokeWidth={16}
        data-testid="tuning-curve"
        style={{ cursor: onScale ? 'ns-resize' : undefined, touchAction: 'none', pointerEvents: 'stroke' }}
        onPointerDown={(e) => {
          if (!onScale) return;
          e.currentTarget.setPointerCapture(e.pointerId);
          drag.current = { from: e.clientY, scale: scale.scale };
        }}
        onPointerMove={(e) => drag.current && onScale?.(moved(e.clientY), false)}
        onPointerUp={(e) => {
          if (drag.current) onScale?.(moved(e.clientY), true);
          drag.current = null;
        }}
      />
      {work.wells.map(
        ({ well, lobe }) =>
          lobe && (
            <g key={well}>
              <circle cx={x(lobe.apparentMs)} cy={y(lobe.average)} r={4.5} {...WELL} />
              <text x={x(lobe.apparentMs) + 7} y={y(lobe.average) + 4}>
                {well}
              </text>
            </g>
          ),
      )}
    </Chart>
  );
}

/** The wedge of the band: a bed of pay from thin to thick, where it is seen to begin and end, and how strong it is seen. */
export function WedgeChart({ work, scale, params, size }: Props) {
  const units = useUnits();
  const { wedge } = work.measures;
  const canvas = useRef<HTMLCanvasElement>(null);
  const metres = (ms: number) => (ms * params.velocity) / 2000;
  const last = wedge.thicknessMs.findIndex((t) => t >= 90);
  const count = last < 0 ? wedge.thicknessMs.length : last;
  const x = scaleLinear([0, units.to(metres(wedge.thicknessMs[count - 1]), 'm')], inX(size));
  const y = scaleLinear([80, -80], [Math.max(1, size.height - EDGES.bottom), EDGES.top]);
  const at = (n: number) => x(units.to(metres(wedge.thicknessMs[n]), 'm'));
  const [w, h] = [
    Math.max(1, Math.round(size.width - EDGES.left - EDGES.right)),
    Math.max(1, Math.round(size.height - EDGES.top - EDGES.bottom)),
  ];
  const picture = useMemo(() => {
    if (typeof document === 'undefined') return '';
    const made = canvas.current ?? document.createElement('canvas');
    made.width = count;
    made.height = 160;
    const context = made.getContext('2d');
    if (!context) return '';
    const image = context.createImageData(count, 160);
    for (let n = 0; n < count; n++)
      for (let r = 0; r < 160; r++) {
        const k = Math.round((r - 80 - wedge.firstMs) / wedge.stepMs);
        const v = Math.max(-1, Math.min(1, wedge.traces[n][k] ?? 0));
        // what is pay darkens in the colour of the tuning curve, its side lobes in the other
        const [red, green, blue] = v > 0 ? [62, 115, 108] : [170, 92, 70];
        const part = Math.abs(v);
        image.data.set(
          [255 - part * (255 - red), 252 - part * (252 - green), 245 - part * (245 - blue), 255],
          4 * (r * count + n),
        );
      }
    context.putImageData(image, 0, 0);
    return made.toDataURL();
  }, [wedge, count]);
  const most = Math.max(...wedge.greatest.slice(0, count)) || 1;
  const strength = scaleLinear([0, 1.2 * most * scale.scale], inY(size));
  const edge = (half: number) =>
    pathOf(Array.from({ length: count }, (_, n) => [at(n), y(half * wedge.apparentMs[n])]));
  return (
    <Chart
      size={size}
      x={x}
      y={y}
      xText={`true thickness, ${units.of('m')}`}
      yText="time about the middle, ms"
      label="Wedge through the band of the data"
    >
      <image
        href={picture}
        x={EDGES.left}
        y={EDGES.top}
        width={w}
        height={h}
        preserveAspectRatio="none"
        style={{ imageRendering: 'pixelated' }}
      />
      <path d={edge(-0.5)} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
      <path d={edge(0.5)} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
      <path
        d={pathOf(Array.from({ length: count }, (_, n) => [at(n), strength(wedge.greatest[n] * scale.scale)]))}
        fill="none"
        stroke="var(--ochre)"
        strokeWidth={1.8}
      />
      <text x={size.width - EDGES.right - 4} y={EDGES.top + 12} textAnchor="end">
        greatest {(most * scale.scale).toPrecision(3)}
      </text>
    </Chart>
  );
}

/** Net pay of wells by their logs against that by seismic. */
export function AtWells({ work, scale, size }: Props) {
  const units = useUnits();
  const rows = work.wells.flatMap((w) =>
    w.lobe
      ? [
          {
            well: w.well,
            logs: units.to(w.netM, 'm'),
            seismic: units.to(netOf(w.lobe, work.measures.tuning, scale).netM, 'm'),
          },
        ]
      : [],
  );
  const most = 1.25 * Math.max(units.to(10, 'm'), ...rows.flatMap((r) => [r.logs, r.seismic]));
  const x = scaleLinear([0, most], inX(size));
  const y = scaleLinear([0, most], inY(size));
  return (
    <Chart
      size={size}
      x={x}
      y={y}
      xText={`net pay by logs, ${units.of('m')}`}
      yText={`by seismic, ${units.of('m')}`}
      label="Net pay at wells"
    >
      <line x1={x(0)} y1={y(0)} x2={x(most)} y2={y(most)} stroke="var(--slate)" strokeDasharray="4 3" />
      {rows.map((r) => (
        <g key={r.well}>
          <line x1={x(r.logs)} x2={x(r.logs)} y1={y(r.logs)} y2={y(r.seismic)} stroke="var(--ochre)" />
          <circle cx={x(r.logs)} cy={y(r.seismic)} r={5} {...WELL} />
          <text x={x(r.logs) + 8} y={y(r.seismic) + 4}>
            {r.well}
          </text>
        </g>
      ))}
      {rows.length === 0 && (
        <text x={size.width / 2} y={size.height / 2} textAnchor="middle">
          Choose wells with pay to hold it against.
        </text>
      )}
    </Chart>
  );
}

/** The map of net pay at that scale. */
export function PayMap({ work, scale, size, binGrid }: Props & { binGrid: BinGrid }) {
  const units = useUnits();
  const { lobes, tuning } = work.measures;
  const values = useMemo(
    () => Float32Array.from(lobes, (l) => (l ? netOf(l, tuning, scale).netM : Number.NaN)),
    [lobes, tuning, scale],
  );
  const most = useMemo(() => {
    const known = Array.from(values)
      .filter((v) => v === v)
      .sort((a, b) => a - b);
    return known[Math.floor(0.99 * (known.length - 1))] || 1;
  }, [values]);
  const corners = cornersOf(binGrid);
  const [xs, ys] = [corners.map((c) => c[0]), corners.map((c) => c[1])];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const room = { width: size.width, height: Math.max(1, size.height) };
  const perPixel = Math.max((x1 - x0) / Math.max(1, room.width - 24), (y1 - y0) / Math.max(1, room.height - 64));
  const frame = { x: (x0 + x1) / 2, y: (y0 + y1) / 2 - 8 * perPixel, perPixel };
  const { colors } = quantityFacts('thickness');
  const look = { ...colors, low: 0, high: most };
  const columns = binGrid.crossline.count;
  return (
    <>
      <MapRaster name="pay" values={values} binGrid={binGrid} look={look} frame={frame} size={room} />
      <svg width={room.width} height={room.height} role="img" aria-label="Map of net pay">
        {work.wells.map(({ well, bin }) => {
          const [px, py] = toScreen(frame, room, ...toMap(binGrid, Math.floor(bin / columns), bin % columns));
          return (
            <g key={well}>
              <circle cx={px} cy={py} r={3.5} {...WELL} />
              <text x={px + 6} y={py + 4} style={{ paintOrder: 'stroke', stroke: 'var(--chalk)', strokeWidth: 3 }}>
                {well}
              </text>
            </g>
          );
        })}
      </svg>
      <ColorBar look={look} unit="m" text={`net pay, ${units.of('m')}`} style={{ left: 10 }} />
    </>
  );
}
