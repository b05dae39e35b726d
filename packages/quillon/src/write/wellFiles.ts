import { join } from 'node:path';
import type { Field } from '../model/field.ts';
import { SURVEY, toMap } from '../model/survey.ts';
import { logsOf } from '../wells/logs.ts';
import { drillWells, KB_M, positionAt, STATION_M } from '../wells/paths.ts';
import { checkshotsOf, coreOf, faciesOf, pressuresOf, topsOf } from '../wells/tables.ts';
import type { Declared } from './seismicFiles.ts';
import { writeCsv, writeLas } from './text.ts';

const table = (file: string, what: string, kind = 'table'): Declared => ({ file, kind, what, declare: {} });

/** Everything about the wells, each as it would come from another desk. */
export function writeWells(dir: string, field: Field): Declared[] {
  const paths = drillWells(field);
  const out: Declared[] = [];
  writeCsv(
    join(dir, 'well-heads.csv'),
    ['well', ['x_m', 2], ['y_m', 2], ['kb_m', 2], ['total_depth_md_m', 1], 'status'],
    paths.map((p, n) => {
      const [x, y] = toMap(p.headU, p.headV);
      return [p.name, x, y, KB_M, p.totalMd, ['oil', 'gas and oil', 'water', 'oil', 'oil'][n]];
    }),
  );
  out.push(table('well-heads.csv', 'Well heads: position, kelly bushing, total depth', 'well heads'));
  const stations: (string | number)[][] = [];
  for (const p of paths)
    for (let md = 0; md <= p.totalMd; md += STATION_M) {
      const azimuth = 90 - SURVEY.rotationDeg - (p.direction * 180) / Math.PI;
      stations.push([p.name, md, positionAt(p, md).inclinationDeg, p.inclinationDeg > 0 ? azimuth : 0]);
    }
  writeCsv(
    join(dir, 'well-surveys.csv'),
    ['well', ['md_m', 2], ['inclination_deg', 3], ['azimuth_grid_deg', 3]],
    stations,
  );
  out.push(table('well-surveys.csv', 'Directional surveys, azimuth from grid north', 'directional surveys'));
  writeCsv(
    join(dir, 'checkshots.csv'),
    ['well', ['md_m', 2], ['tvdss_m', 2], ['twt_ms', 2]],
    paths
      .filter((p) => ['QN-1', 'QN-2', 'QN-4'].includes(p.name))
      .flatMap((p) => checkshotsOf(field, p).map((c) => [c.well, c.md, c.tvdss, c.twt])),
  );
  out.push(table('checkshots.csv', 'Checkshots: two-way time below mean sea level', 'checkshots'));
  writeCsv(
    join(dir, 'well-tops.csv'),
    ['well', 'top', ['md_m', 2]],
    paths.flatMap((p) => topsOf(field, p).map((t) => [t.well, t.name, t.md])),
  );
  out.push(table('well-tops.csv', 'Tops and fault cuts, measured depth', 'tops'));
  writeCsv(
    join(dir, 'pressures.csv'),
    ['well', ['md_m', 2], ['tvdss_m', 2], ['pressure_bar', 3]],
    paths
      .filter((p) => ['QN-1', 'QN-2', 'QN-4'].includes(p.name))
      .flatMap((p) => pressuresOf(field, p).map((c) => [c.well, c.md, c.tvdss, c.pressureBar])),
  );
  out.push(table('pressures.csv', 'Formation pressures', 'pressures'));
  const { oil, gas, brine, oilFactor, gasFactor, electric } = field.rocks;
  writeCsv(
    join(dir, 'fluid-samples.csv'),
    ['well', 'fluid', ['density_kg_m3', 1], ['formation_volume_factor', 5], ['resistivity_ohm_m', 4]],
    [
      ['QN-1', 'oil', oil.rho, oilFactor, Number.NaN],
      ['QN-2', 'gas', gas.rho, gasFactor, Number.NaN],
      ['QN-3', 'water', brine.rho, 1.01, electric.brine],
    ],
  );
  out.push(
    table(
      'fluid-samples.csv',
      'Fluid samples: density and resistivity at reservoir, formation volume factor',
      'fluid samples',
    ),
  );
  writeCsv(
    join(dir, 'facies.csv'),
    ['well', ['from_md_m', 2], ['to_md_m', 2], 'facies'],
    paths
      .filter((p) => ['QN-1', 'QN-2'].includes(p.name))
      .flatMap((p) => faciesOf(field, p).map((i) => [i.well, i.fromMd, i.toMd, i.facies])),
  );
  out.push(table('facies.csv', 'Facies described on QN-1 and QN-2', 'facies'));
  writeCsv(
    join(dir, 'core-points.csv'),
    ['well', ['md_m', 2], ['porosity_frac', 4]],
    coreOf(field, paths[0]).map((c) => [c.well, c.md, c.porosity]),
  );
  out.push(table('core-points.csv', 'Core porosity of QN-1', 'core points'));
  for (const path of paths) {
    writeLas(join(dir, `${path.name}.las`), logsOf(field, path), { field: 'Quillon', kb: KB_M });
    out.push(table(`${path.name}.las`, `Logs of ${path.name}`, 'logs'));
  }
  return out;
}
