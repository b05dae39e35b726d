import type { Units } from '../../earth/display.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject } from '../../earth/objects.ts';
import { relationOf } from '../../project/wells/seeds.ts';
import { pathOf, topsOfTable } from '../../project/wells/wells.ts';
import { readWhole } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';
import { pointAtMd } from '../../wells/path.ts';
import { twtOfDepth } from '../../wells/timeDepth.ts';

/** A number with so many places, NaN as it is. */
export const round = (v: number, places: number) => (Number.isNaN(v) ? v : Number(v.toFixed(places)));

/** A column's name with its unit, plain enough for any program: “Depth in well (m TVDSS)” → `depth_in_well_m_tvdss`. */
export const plain = (name: string, unit: string) =>
  `${name} ${unit}`
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_|_$/g, '');

/** Column names and rows of an object that is written as a table; map coordinates times `map` are in the file's unit. */
export async function tableOf(
  store: Store,
  object: EarthObject,
  map: { unit: string; scale: number },
): Promise<[string[], unknown[][]]> {
  const xy = [`x_${map.unit}`, `y_${map.unit}`];
  // millimetres, where a place is computed from a path to less than that
  const at = (v: number) => round(v * map.scale, 3);
  switch (object.kind) {
    case 'well': {
      const path = pathOf(await store.list(), object);
      const last = object.totalMdM ?? path.md[path.md.length - 1];
      const mds = [...new Set([...path.md, last])].filter((md) => md <= last);
      return [
        ['md_m', ...xy, 'tvd_m', 'tvdss_m'],
        mds.map((md) => {
          const p = pointAtMd(path, md);
          return [round(md, 3), at(p.x), at(p.y), round(p.tvdss + object.kbM, 3), round(p.tvdss, 3)];
        }),
      ];
    }
    case 'tops': {
      const objects = await store.list();
      const well = objects.find((o) => o.kind === 'well' && o.name === object.well);
      if (well?.kind !== 'well') break;
      const path = pathOf(objects, well);
      const relation = relationOf(objects, well.name);
      return [
        ['well', 'top', 'md_m', ...xy, 'tvdss_m', 'twt_ms'],
        topsOfTable(objects, object).map(({ name, md }) => {
          const p = pointAtMd(path, md);
          const twt = relation ? round(twtOfDepth(relation, p.tvdss), 2) : null;
          return [object.well, name, round(md, 3), at(p.x), at(p.y), round(p.tvdss, 3), twt];
        }),
      ];
    }
    case 'fault':
      return [
        ['fault', 'stick', ...xy, object.domain === 'twt' ? 'twt_ms' : 'depth_m'],
        object.sticks.flatMap((stick, n) => stick.map((p) => [object.name, n + 1, at(p[0]), at(p[1]), round(p[2], 2)])),
      ];
    case 'picks':
      return [
        [...xy, object.domain === 'twt' ? 'twt_ms' : 'depth_m'],
        object.points.map((p) => [at(p[0]), at(p[1]), round(p[2], 2)]),
      ];
    case 'navigation':
      return [['line', object.by, ...xy], object.points.map(([n, x, y]) => [object.line, n, at(x), at(y)])];
    case 'time-depth relation':
      return [['tvdss_m', 'twt_ms'], object.pairs];
    case 'synthetic gather': {
      const values = await readWhole(store, object.samples);
      const count = object.samples.shape[1];
      return [
        ['twt_ms', ...object.anglesDeg.map((a) => `at_${String(a).replace('.', '_')}_deg`)],
        Array.from({ length: count }, (_, k) => [
          round(object.firstMs + k * object.stepMs, 3),
          ...object.anglesDeg.map((_, n) => values[n * count + k]),
        ]),
      ];
    }
    case 'stratigraphic column':
      return [
        ['top', 'zone', 'unconformity', 'color', 'pattern'],
        object.units.map((u) => [u.top, u.zone, u.unconformity ? 'yes' : 'no', u.color, u.pattern]),
      ];
    case 'crossplot class':
      return [[plain(object.x.of, ''), plain(object.y.of, '')], object.ring];
    case 'wavelet':
      return [
        ['time_ms', 'amplitude'],
        object.samples.map((v, n) => [round(object.firstMs + n * object.stepMs, 3), v]),
      ];
    default:
  }
  if ('rows' in object && 'columns' in object) return [object.columns.map((c) => plain(c.name, c.unit)), object.rows];
  throw new LithagonError('export', `${object.name} has no rows to write.`, { object: object.name });
}

/** Lengths of a table in the units of the project: `md_m` becomes `md_ft` where that has feet. Map coordinates are not lengths. */
export function inProjectUnits([head, rows]: [string[], unknown[][]], units: Units): [string[], unknown[][]] {
  if (units.of('m') === 'm') return [head, rows];
  const isLength = head.map((name) => /(?<!^[xy])_m(_tvdss)?$/.test(name));
  return [
    head.map((name, n) => (isLength[n] ? name.replace(/_m(?=(_tvdss)?$)/, '_ft') : name)),
    rows.map((row) =>
      row.map((cell, n) => (isLength[n] && typeof cell === 'number' ? round(units.to(cell, 'm'), 3) : cell)),
    ),
  ];
}
