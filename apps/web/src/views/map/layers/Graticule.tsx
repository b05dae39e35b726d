import { crsOf, lonLatOf } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useEffect, useState } from 'react';
import { HALO } from '../../../kinds/mapParts';
import { pathText } from '../../../picture/path';
import { useProject } from '../../../state/project';
import { useMapUnit } from '../../../state/units';
import { crsTable } from '../../../storage/crsTable';
import type { Size } from '../../common/hooks';
import css from '../../common/view.module.css';
import { type MapFrame, toEarth, toScreen } from '../frame';

type LonLat = ReturnType<typeof lonLatOf>;

/** Longitude and latitude of the project's system, or null while it is looked up or where none is declared. */
export function useLonLat(wanted: boolean): LonLat | null {
  const crs = useProject((s) => s.facts?.frame?.crs);
  const [way, setWay] = useState<LonLat | null>(null);
  useEffect(() => {
    setWay(null);
    if (!wanted || !crs) return;
    let here = true;
    crsOf(crs, crsTable).then(
      (found) => here && setWay(lonLatOf(found)),
      () => undefined,
    );
    return () => {
      here = false;
    };
  }, [crs, wanted]);
  return way;
}

/** Lines of equal coordinates with their values at the left and along the bottom, in the map's unit. */
export function MapGraticule({ frame, size }: { frame: MapFrame; size: Size }) {
  const { unit, metres } = useMapUnit();
  const [x0, y0] = toEarth(frame, size, 0, size.height);
  const [x1, y1] = toEarth(frame, size, size.width, 0);
  const count = (pixels: number) => Math.max(2, Math.floor(pixels / 105));
  const xs = scaleLinear([x0 / metres, x1 / metres], [0, size.width]);
  const ys = scaleLinear([y0 / metres, y1 / metres], [size.height, 0]);
  // bars and legends keep their corners
  const eastings = xs.ticks(count(size.width)).filter((t) => xs(t) > 64 && xs(t) < size.width - 34);
  const northings = ys.ticks(count(size.height)).filter((t) => ys(t) > 40 && ys(t) < size.height - 30);
  const grid = {
    x: xs.ticks(count(size.width)).map((t) => xs(t)),
    y: ys.ticks(count(size.height)).map((t) => ys(t)),
  };
  return (
    <g data-testid="graticule">
      <path
        d={[...grid.x.map((x) => `M${x} 0V${size.height}`), ...grid.y.map((y) => `M0 ${y}H${size.width}`)].join('')}
        className={css.graticule}
      />
      {eastings.map((t) => (
        <text key={t} x={xs(t)} y={size.height - 5} textAnchor="middle" className={css.tick} style={HALO}>
          {grouped(t)}
        </text>
      ))}
      {northings.map((t) => (
        <text
          key={t}
          transform={`translate(${size.width - 5} ${ys(t)}) rotate(-90)`}
          textAnchor="middle"
          className={css.tick}
          style={HALO}
        >
          {grouped(t)}
        </text>
      ))}
      <text x={size.width - 5} y={size.height - 5} textAnchor="end" className={css.tick} style={HALO}>
        {unit}
      </text>
    </g>
  );
}

const grouped = (value: number) =>
  Math.round(value)
    .toString()
    .replace(/\B(?=(\d{3})+(?!\d))/g, '\u202f');

/** Steps of a graticule in degrees: whole parts of minutes and seconds. */
const STEPS = [10, 5, 2, 1, 1 / 2, 1 / 4, 1 / 6, 1 / 12, 1 / 20, 1 / 30, 1 / 60, 1 / 120, 1 / 240, 1 / 360, 1 / 720];

/** An angle in degrees, minutes and, where the step needs them, seconds. */
function angle(value: number, step: number, [plus, minus]: string): string {
  const seconds = Math.round(Math.abs(value) * 3600);
  const [d, m, s] = [Math.floor(seconds / 3600), Math.floor((seconds % 3600) / 60), seconds % 60];
  const parts = [
    `${d}°`,
    ...(step < 1 ? [`${String(m).padStart(2, '0')}′`] : []),
    ...(step < 1 / 60 ? [`${String(s).padStart(2, '0')}″`] : []),
  ];
  return `${parts.join('')} ${value < 0 ? minus : plus}`;
}

/** Meridians and parallels as the map's system bends them, with their values where they leave the map. */
export function DegreeGraticule({ frame, size, way }: { frame: MapFrame; size: Size; way: LonLat }) {
  const { metres } = useMapUnit();
  const degrees = (px: number, py: number) => {
    const [x, y] = toEarth(frame, size, px, py);
    return way.to(x / metres, y / metres);
  };
  const place = (lon: number, lat: number): [number, number] => {
    const [x, y] = way.from(lon, lat);
    return toScreen(frame, size, x * metres, y * metres);
  };
  const edge = [0, 0.25, 0.5, 0.75, 1].flatMap((f) => [
    degrees(f * size.width, 0),
    degrees(f * size.width, size.height),
    degrees(0, f * size.height),
    degrees(size.width, f * size.height),
  ]);
  const ends = (c: 0 | 1) => [Math.min(...edge.map((p) => p[c])), Math.max(...edge.map((p) => p[c]))];
  const [[w, e], [s, n]] = [ends(0), ends(1)];
  if (![w, e, s, n].every(Number.isFinite)) return null;
  const stepOf = (span: number, pixels: number) =>
    STEPS.findLast((each) => span / each <= Math.max(2, pixels / 110)) ?? STEPS[0];
  const [dx, dy] = [stepOf(e - w, size.width), stepOf(n - s, size.height)];
  const between = (low: number, high: number, step: number) => {
    const out: number[] = [];
    for (let k = Math.ceil(low / step); k * step <= high; k++) out.push(k * step);
    return out;
  };
  const parts = Array.from({ length: 25 }, (_, k) => k / 24);
  const meridians = between(w, e, dx).map((lon) => ({
    value: lon,
    line: parts.map((f) => place(lon, s + f * (n - s))),
  }));
  const parallels = between(s, n, dy).map((lat) => ({
    value: lat,
    line: parts.map((f) => place(w + f * (e - w), lat)),
  }));
  /** Where a line passes a height or a width of the map. */
  const crossing = (line: [number, number][], c: 0 | 1, at: number): number | null => {
    for (let k = 1; k < line.length; k++) {
      const [a, b] = [line[k - 1], line[k]];
      if (a[c] <= at === b[c] <= at) continue;
      const f = (at - a[c]) / (b[c] - a[c]);
      return a[1 - c] + f * (b[1 - c] - a[1 - c]);
    }
    return null;
  };
  return (
    <g data-testid="graticule">
      <path d={[...meridians, ...parallels].map(({ line }) => pathText(line)).join('')} className={css.graticule} />
      {meridians.map(({ value, line }) => {
        const x = crossing(line, 1, size.height - 8);
        return x !== null && x > 64 && x < size.width - 34 ? (
          <text key={value} x={x} y={size.height - 5} textAnchor="middle" className={css.tick} style={HALO}>
            {angle(value, dx, 'EW')}
          </text>
        ) : null;
      })}
      {parallels.map(({ value, line }) => {
        const y = crossing(line, 0, size.width - 8);
        return y !== null && y > 40 && y < size.height - 30 ? (
          <text
            key={value}
            transform={`translate(${size.width - 5} ${y}) rotate(-90)`}
            textAnchor="middle"
            className={css.tick}
            style={HALO}
          >
            {angle(value, dy, 'NS')}
          </text>
        ) : null;
      })}
    </g>
  );
}
