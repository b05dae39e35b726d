import type { FileReport } from '@lithagon/core';
import { cornersOf, extentOf } from '@lithagon/core';
import { pathText } from '../../picture/path';
import { useProject } from '../../state/project';
import { useUnits } from '../../state/units';
import css from './LoadSheet.module.css';

/** Where the files lie, over what the project holds already: the chosen one stands out. */
export function Sketches({ reports, chosen }: { reports: FileReport[]; chosen: FileReport | null }) {
  const objects = useProject((s) => s.objects);
  const units = useUnits();
  const held: [number, number][][] = objects.flatMap((o) =>
    o.kind === 'volume' && !o.binGrid.local ? [[...cornersOf(o.binGrid), cornersOf(o.binGrid)[0]]] : [],
  );
  const wells = objects.flatMap((o): [number, number][] => (o.kind === 'well' ? [[o.x, o.y]] : []));
  const points = [
    ...held.flat(),
    ...wells,
    ...reports.flatMap((r) => [
      ...r.sketch.lines.flat(),
      ...r.sketch.points.map((p) => [p.x, p.y] as [number, number]),
    ]),
  ];
  if (points.length === 0) return <p className={css.note}>None of these files has a position on the map.</p>;
  // outlying lines such as a coastline must not shrink the survey to a dot
  const core = reports.some((r) => r.format === 'SEG-Y')
    ? [...held.flat(), ...reports.filter((r) => r.format === 'SEG-Y').flatMap((r) => r.sketch.lines.flat())]
    : points;
  const [[x0, x1], [y0, y1]] = [extentOf(core.map((p) => p[0])), extentOf(core.map((p) => p[1]))];
  const span = Math.max(x1 - x0, y1 - y0, 1) * 1.25;
  const [cx, cy] = [(x1 + x0) / 2, (y1 + y0) / 2];
  const place = ([x, y]: [number, number]): [number, number] => [
    ((x - cx) / span + 0.5) * 300,
    (0.5 - (y - cy) / span) * 300,
  ];
  const at = (p: [number, number]) =>
    place(p)
      .map((v) => v.toFixed(1))
      .join(' ');
  // kilometres where metres are shown, else thousands of feet
  const wide = `${(units.to(span, 'm') / 1000).toFixed(1)} ${units.of('m') === 'm' ? 'km' : `thousand ${units.of('m')}`}`;
  const d = (line: [number, number][]) => pathText(line.map(place));
  return (
    <figure className={css.sketch}>
      <svg viewBox="0 0 300 300" role="img" aria-label="Map sketch of the files">
        {held.map((ring) => (
          <path key={d(ring)} d={d(ring)} fill="none" stroke="var(--slate)" strokeDasharray="3 3" />
        ))}
        {wells.map((well) => (
          <path key={at(well)} d={`M${at(well)}h0`} stroke="var(--slate)" strokeWidth={4} strokeLinecap="round" />
        ))}
        {reports.map((r) => (
          <g
            key={r.file}
            stroke={r === chosen ? 'var(--ochre)' : 'var(--slate)'}
            strokeWidth={r === chosen ? 1.8 : 0.8}
            fill="none"
            opacity={r === chosen || !chosen ? 1 : 0.6}
          >
            {r.sketch.lines.map((line, n) => (
              <path key={n} d={d(line)} />
            ))}
            {r.sketch.points.map((p, n) => {
              const [x, y] = at([p.x, p.y]).split(' ').map(Number);
              return (
                <g key={n}>
                  <circle
                    cx={x}
                    cy={y}
                    r={p.label ? 3 : r.sketch.points.length <= 200 ? 2 : 0.6}
                    fill={r === chosen ? 'var(--ochre)' : 'var(--slate)'}
                    stroke="none"
                  />
                  {p.label && (
                    <text x={x + 5} y={y - 3} stroke="none" fill="var(--ink)" fontSize={10}>
                      {p.label}
                    </text>
                  )}
                </g>
              );
            })}
          </g>
        ))}
      </svg>
      <figcaption>North is up; the sketch is {wide} wide.</figcaption>
    </figure>
  );
}
