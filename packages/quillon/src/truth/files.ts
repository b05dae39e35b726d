import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { ageAt, columnAt, emptyPoint, type Field, pointAt } from '../model/field.ts';
import { toMap, uOf, vOf } from '../model/survey.ts';
import type { Imaged } from '../seismic/survey.ts';
import { timeColumn, twtAt } from '../seismic/traces.ts';
import { drawWavelets } from '../seismic/wavelet.ts';
import { pointOnPath } from '../wells/logs.ts';
import { drillWells, positionAt } from '../wells/paths.ts';
import { faciesName } from '../wells/tables.ts';
import { writeCsv, writeJson } from '../write/text.ts';
import { HORIZONS, truthRows } from './events.ts';
import { crestOutline } from './outline.ts';
import { reservoirRows } from './reservoir.ts';
import { FAULT_COLUMNS, faultRows, writeAges } from './structure.ts';
import { insideRing, volumesOnColumns } from './volumes.ts';

/** Rock, fluid and bed at every tenth line and trace and every ten metres: the earth itself, to be asked anywhere. */
function writePoints(path: string, field: Field): void {
  const rows: (string | number)[][] = [];
  const point = emptyPoint();
  for (let inline = 1000; inline < 1160; inline += 10)
    for (let crossline = 2000; crossline < 2200; crossline += 10) {
      const [u, v] = [uOf(crossline), vOf(inline)];
      const column = columnAt(field, u, v);
      for (let z = 100; z <= 1800; z += 10) {
        pointAt(column, z, point);
        const { layer, net, porosity, water, fluid, channel, vp, vs, rho } = point;
        rows.push([
          inline,
          crossline,
          z,
          layer,
          net ? 1 : 0,
          porosity,
          water,
          fluid,
          channel,
          vp,
          vs,
          rho,
          ageAt(column, z),
        ]);
      }
    }
  writeCsv(
    path,
    [
      'inline',
      'crossline',
      'depth_m',
      'layer',
      'net',
      ['porosity', 4],
      ['water_saturation', 4],
      'fluid',
      ['channel', 3],
      ['vp_m_s', 1],
      ['vs_m_s', 1],
      ['density_kg_m3', 1],
      ['age', 4],
    ],
    rows,
  );
}

/** Time, rock and fluid down every well, those left out of the tables too. */
function writeWells(path: string, field: Field): void {
  const rows: (string | number)[][] = [];
  const point = emptyPoint();
  for (const well of drillWells(field)) {
    const fixed = well.inclinationDeg === 0 ? timeColumn(field, well.headU, well.headV) : null;
    for (let md = 150; md < well.totalMd - 5; md += 0.5) {
      const at = positionAt(well, md);
      pointOnPath(field, well, md, point);
      const twt = twtAt(fixed ?? timeColumn(field, at.u, at.v), at.tvdss);
      const { porosity, water, vp, vs, rho, net } = point;
      rows.push([well.name, md, at.tvdss, twt, faciesName(point), porosity, water, vp, vs, rho, net ? 1 : 0]);
    }
  }
  writeCsv(
    path,
    [
      'well',
      ['md_m', 2],
      ['tvdss_m', 3],
      ['twt_ms', 3],
      'facies',
      ['porosity', 4],
      ['water_saturation', 4],
      ['vp_m_s', 1],
      ['vs_m_s', 1],
      ['density_kg_m3', 1],
      'net',
    ],
    rows,
  );
}

/** Write `truth.json` and `truth/`: the answers, which no step may read. */
export function writeTruth(dir: string, field: Field, imaged: Imaged): void {
  mkdirSync(join(dir, 'truth'), { recursive: true });
  const horizonCounts: Record<string, number> = {};
  for (const { name, file, surface } of HORIZONS) {
    const rows = truthRows(imaged, surface);
    horizonCounts[name] = rows.length;
    writeCsv(
      join(dir, 'truth', `${file}.csv`),
      ['inline', 'crossline', ['x_m', 2], ['y_m', 2], ['twt_ms', 3], ['depth_m', 3], ['event_ms', 3]],
      rows.map((r) => [r.inline, r.crossline, ...toMap(uOf(r.crossline), vOf(r.inline)), r.twt, r.depth, r.event]),
    );
  }
  writeCsv(join(dir, 'truth', 'faults.csv'), FAULT_COLUMNS, faultRows(field));
  writeAges(join(dir, 'truth', 'ages'), field);
  writeCsv(
    join(dir, 'truth', 'reservoir.csv'),
    [
      'inline',
      'crossline',
      ['channel', 3],
      ['thickness_m', 1],
      ['gas_top_m', 1],
      ['gas_base_m', 1],
      ['gas_top_ms', 2],
      ['gas_base_ms', 2],
    ],
    reservoirRows(field).map((r) => [
      r.inline,
      r.crossline,
      r.channel,
      r.thickness,
      r.gasTop,
      r.gasBase,
      r.gasTopMs,
      r.gasBaseMs,
    ]),
  );
  writePoints(join(dir, 'truth', 'points.csv'), field);
  writeWells(join(dir, 'truth', 'wells.csv'), field);
  const { traps } = field;
  const point = (m: number, u: number, v: number) => {
    const [x, y] = toMap(u, v);
    return { depth_m: m, x_m: x, y_m: y };
  };
  writeJson(join(dir, 'truth.json'), {
    field: 'Quillon',
    seed: field.seed,
    volumes: volumesOnColumns(field, insideRing(crestOutline(field)), 12.5, 0.25),
    traps: {
      crest: {
        top: point(traps.crest.topM, traps.crest.topU, traps.crest.topV),
        spill: point(traps.crest.spillM, traps.crest.spillU, traps.crest.spillV),
      },
      east: {
        top: point(traps.east.topM, traps.east.topU, traps.east.topV),
        leak: point(traps.leakM, traps.leakU, traps.leakV),
      },
    },
    wavelets: drawWavelets(field.seed),
    horizons: horizonCounts,
  });
}
