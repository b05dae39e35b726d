import { mergedClasses, type QuantityMap, type ResultTable } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { colorMap } from '../../color/maps';
import { pathText } from '../../picture/path';
import { useProject } from '../../state/project';
import { useArray } from '../../views/common/hooks';
import css from './Sheet.module.css';

const [W, H, LEFT, TOP, FOOT] = [262, 190, 30, 8, 32];

/** The colour of a class on its map, whose bands are those from the least class that it holds to the greatest. */
function colorOf(n: number, [least, greatest]: [number, number]): string {
  const rgb = colorMap('strata');
  const part = Math.max(0, Math.min(1, (n - least + 0.5) / (greatest - least + 1)));
  const at = 3 * Math.round(255 * part);
  return `rgb(${rgb[at]} ${rgb[at + 1]} ${rgb[at + 2]})`;
}

/** How many bins each class holds, as a part of all that have one. */
function sharesOf(values: Float32Array | null, count: number): number[] {
  const bins = new Array<number>(count).fill(0);
  let all = 0;
  for (const v of values ?? [])
    if (v >= 1 && v <= count) {
      bins[v - 1]++;
      all++;
    }
  return bins.map((n) => n / Math.max(1, all));
}

/** The waveforms that classes of a map are centred on, side by side in the map's colours, each with its part of the bins. */
export function ClassCentres({ object }: { object: QuantityMap }) {
  const objects = useProject((s) => s.objects);
  const values = useArray(object.id, object.revision, object.values);
  const table = useMemo(
    () =>
      objects.find(
        (o): o is ResultTable =>
          o.kind === 'result table' && o.madeBy.run === object.madeBy.run && o.madeBy.output === 'centres',
      ),
    [objects, object],
  );
  const classes = (table?.columns.length ?? 1) - 1;
  const groups = object.madeBy.params.groups as Parameters<typeof mergedClasses>[1] | undefined;
  // merged classes have one colour and one share
  const { becomes, names } = useMemo(() => mergedClasses(classes, groups ?? []), [classes, groups]);
  const shares = useMemo(() => sharesOf(values, names.length), [values, names]);
  if (object.quantity !== 'class' || object.madeBy.output !== 'classes' || !table || classes < 1) return null;
  const times = table.rows.map((row) => Number(row[0]));
  const centres = Array.from({ length: classes }, (_, c) => table.rows.map((row) => Number(row[c + 1])));
  const most = Math.max(...centres.flat().map(Math.abs)) || 1;
  const y = scaleLinear([times[0], times[times.length - 1]], [TOP, H - FOOT]);
  const wide = (W - LEFT - 2) / classes;
  return (
    <>
      <h3>Class centres</h3>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        width={W}
        height={H}
        role="img"
        aria-label={`Waveforms that ${classes} classes are centred on`}
        className={css.small}
      >
        {y.ticks(4).map((t) => (
          <g key={t}>
            <line x1={LEFT} x2={W} y1={y(t)} y2={y(t)} stroke="var(--ash)" strokeWidth={0.6} />
            <text x={LEFT - 4} y={y(t) + 4} textAnchor="end">
              {t}
            </text>
          </g>
        ))}
        {centres.map((centre, c) => {
          const middle = LEFT + (c + 0.5) * wide;
          const x = (v: number) => middle + (0.48 * wide * v) / most;
          const line = centre.map((v, n): [number, number] => [x(v), y(times[n])]);
          const filled = centre.map((v, n): [number, number] => [x(Math.max(0, v)), y(times[n])]);
          const ends: [number, number][] = [
            [middle, y(times[times.length - 1])],
            [middle, y(times[0])],
          ];
          return (
            <g key={c} data-class={c + 1}>
              <title>
                {names[becomes[c + 1] - 1]}: {(100 * shares[becomes[c + 1] - 1]).toFixed(1)} % of the bins
              </title>
              <path d={pathText([...filled, ...ends], true)} fill={colorOf(becomes[c + 1], object.range)} />
              <path d={pathText(line)} fill="none" stroke="var(--ink)" strokeWidth={0.9} />
              <rect
                x={LEFT + c * wide + 0.5}
                y={H - FOOT + 6}
                width={Math.max(1, wide - 1)}
                height={8}
                fill={colorOf(becomes[c + 1], object.range)}
              />
              {(classes <= 12 || c % 2 === 0) && (
                <text x={middle} y={H - 4} textAnchor="middle">
                  {c + 1}
                </text>
              )}
            </g>
          );
        })}
        <text x={2} y={H - FOOT + 14}>
          {table.columns[0].unit}
        </text>
      </svg>
      <p className={css.note}>
        Largest: {names[shares.indexOf(Math.max(...shares))]} with {(100 * Math.max(...shares)).toFixed(0)} % of the
        bins. {table.name} can be given to another run, which then finds the same classes there.
      </p>
    </>
  );
}
