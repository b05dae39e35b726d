import { type BinGrid, contourSegments, cornersOf, type EarthObject, toMap, type Volume } from '@lithagon/core';
import { useMemo } from 'react';
import { webKindOf } from '../../kinds';
import { HALO } from '../../kinds/mapParts';
import { pathText } from '../../picture/path';
import { useCursor } from '../../state/cursor';
import { type Lines, useDesk } from '../../state/desk';
import { useMapUnit, useUnits } from '../../state/units';
import type { Size } from '../common/hooks';
import type { ShownWell } from '../common/survey';
import css from '../common/view.module.css';
import { type MapFrame, scaleBar, toScreen } from './frame';

const FLUID_COLORS: [RegExp, string][] = [
  [/gas/i, '#c3362c'],
  [/oil/i, '#2c8a3f'],
  [/water|wet/i, '#2b6cb0'],
];

/** Contours of a grid in map coordinates, drawn with every fifth heavier. */
function Contours(props: {
  values: Float32Array;
  binGrid: BinGrid;
  interval: number;
  place(x: number, y: number): [number, number];
}) {
  const { values, binGrid, interval, place } = props;
  const segments = useMemo(
    () => contourSegments(values, binGrid.inline.count, binGrid.crossline.count, interval),
    [values, binGrid, interval],
  );
  const d = { light: '', heavy: '' };
  for (const [level, parts] of segments) {
    const kind = Math.round(level / interval) % 5 === 0 ? 'heavy' : 'light';
    for (const [a, b, e, f] of parts)
      d[kind] += pathText([place(...toMap(binGrid, a, b)), place(...toMap(binGrid, e, f))]);
  }
  return (
    <g fill="none" stroke="#1b1d1f">
      <path d={d.light} strokeOpacity={0.4} strokeWidth={0.7} />
      <path d={d.heavy} strokeOpacity={0.75} strokeWidth={1.2} />
    </g>
  );
}

function Cursor({ place }: { place(x: number, y: number): [number, number] }) {
  const at = useCursor((s) => s.at);
  if (!at || at.from === 'map') return null;
  const [x, y] = place(at.x, at.y);
  return (
    <g stroke="var(--verdigris)" strokeWidth={1.4}>
      <line x1={x - 7} x2={x + 7} y1={y} y2={y} />
      <line x1={x} x2={x} y1={y - 7} y2={y + 7} />
    </g>
  );
}

/** Surveys, lines, faults, polygons, wells, the section's trace, coordinates, north and scale. */
export function MapOverlay(props: {
  frame: MapFrame;
  size: Size;
  objects: EarthObject[];
  wells: ShownWell[];
  volume: Volume | undefined;
  lines: Lines;
  plane: 'inline' | 'crossline';
  domain: 'twt' | 'depth';
  contours: { values: Float32Array; binGrid: BinGrid; interval: number } | null;
  selected: string | null;
}) {
  const { frame, size, objects, wells, volume, lines, plane, domain, selected } = props;
  const place = (x: number, y: number) => toScreen(frame, size, x, y);
  const shownLine = useDesk((s) => s.line);
  const units = useUnits();
  const map = useMapUnit();
  const bar = scaleBar(frame, size, units.of('m') === 'ft');
  const ticks = niceTicks(frame, size, map.metres);
  const ni = volume?.binGrid.inline.count ?? 0;
  const nj = volume?.binGrid.crossline.count ?? 0;
  const traces = volume && {
    inline: [toMap(volume.binGrid, lines.inline, 0), toMap(volume.binGrid, lines.inline, nj - 1)],
    crossline: [toMap(volume.binGrid, 0, lines.crossline), toMap(volume.binGrid, ni - 1, lines.crossline)],
  };
  return (
    <svg className={css.overlay} aria-hidden="true">
      {props.contours && <Contours {...props.contours} place={place} />}
      {volume && (
        <path
          d={pathText(
            cornersOf(volume.binGrid).map((p) => place(...p)),
            true,
          )}
          fill="none"
          stroke="var(--slate)"
          strokeWidth={1.1}
        />
      )}
      {objects.map((object) => {
        const Layer = webKindOf(object).layers.map;
        const chosen = selected === object.id;
        return Layer && <Layer key={object.id} {...{ object, objects, size, domain, place }} selected={chosen} />;
      })}
      {traces && !shownLine && (
        <g fill="none" stroke="var(--verdigris)">
          <path
            d={pathText(traces[plane === 'inline' ? 'crossline' : 'inline'].map((p) => place(...p)))}
            strokeWidth={1}
            strokeDasharray="3 4"
          />
          <path data-testid="section-trace" d={pathText(traces[plane].map((p) => place(...p)))} strokeWidth={2.6} />
        </g>
      )}
      {wells.map(({ well, points }) => {
        const [x, y] = place(well.x, well.y);
        const color = FLUID_COLORS.find(([p]) => p.test(well.status ?? ''))?.[1] ?? '#5d656c';
        return (
          <g key={well.id}>
            <path
              d={pathText(points.map(([px, py]) => place(px, py)))}
              fill="none"
              stroke="#17191b"
              strokeWidth={1.3}
            />
            <circle
              cx={x}
              cy={y}
              r={selected === well.id ? 6 : 4.4}
              fill="#fffdf7"
              stroke="#17191b"
              strokeWidth={1.4}
            />
            <circle cx={x} cy={y} r={2.3} fill={color} />
            <text
              x={x + 7}
              y={y - 5}
              style={{ fill: '#17191b', stroke: '#fffdf7', strokeWidth: 3.2, paintOrder: 'stroke', fontWeight: 620 }}
            >
              {well.name}
            </text>
          </g>
        );
      })}
      <Cursor place={place} />
      <g className={css.axis}>
        {ticks.x.map((t) => {
          const [x] = place(t, frame.y);
          return (
            <g key={t}>
              <line x1={x} x2={x} y1={size.height - 5} y2={size.height} />
              <text x={x} y={size.height - 8} textAnchor="middle" className={css.tick} style={HALO}>
                {(t / map.metres).toFixed(0)}
              </text>
            </g>
          );
        })}
        {ticks.y.map((t) => {
          const [, y] = place(frame.x, t);
          return (
            <g key={t}>
              <line x1={size.width - 5} x2={size.width} y1={y} y2={y} />
              <text x={size.width - 8} y={y + 4} textAnchor="end" className={css.tick} style={HALO}>
                {(t / map.metres).toFixed(0)}
              </text>
            </g>
          );
        })}
      </g>
      <g transform="translate(18 24)">
        <path d="M0 -14 5 8 0 4 -5 8Z" fill="var(--ink)" />
        <text y={20} textAnchor="middle" className={css.compass}>
          N
        </text>
      </g>
      <g transform={`translate(12 ${size.height - 26})`} stroke="var(--ink)" strokeWidth={1.2}>
        <path d={`M0 -4V4M0 0H${bar.pixels}M${bar.pixels} -4V4`} fill="none" />
        <text x={bar.pixels + 6} y={4} style={HALO}>
          {bar.label}
        </text>
      </g>
    </svg>
  );
}

/** A few round coordinates along the right and bottom edges, clear of the corners. */
/** Map coordinates to be written at the edges: metres, round in the unit that is shown. */
function niceTicks(metric: MapFrame, size: Size, metres: number): { x: number[]; y: number[] } {
  const frame = { x: metric.x / metres, y: metric.y / metres, perPixel: metric.perPixel / metres };
  const step = (pixels: number) => {
    const wanted = frame.perPixel * pixels;
    const power = 10 ** Math.floor(Math.log10(wanted));
    return power * (wanted / power >= 5 ? 10 : wanted / power >= 2 ? 5 : 2);
  };
  const range = (centre: number, span: number, every: number, low: number, high: number) => {
    const out: number[] = [];
    for (let t = Math.ceil((centre - span / 2) / every) * every; t <= centre + span / 2; t += every) {
      const part = (t - (centre - span / 2)) / span;
      if (part > low && part < high) out.push(t);
    }
    return out;
  };
  const wide = frame.perPixel * size.width;
  const tall = frame.perPixel * size.height;
  const back = (list: number[]) => list.map((t) => t * metres);
  return { x: back(range(frame.x, wide, step(90), 0.42, 0.82)), y: back(range(frame.y, tall, step(90), 0.14, 0.95)) };
}
