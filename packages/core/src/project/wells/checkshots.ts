import type { EarthObject, Well, WellTable } from '../../earth/objects.ts';
import { pointAtMd } from '../../wells/path.ts';
import { startOf, type TimedDepth } from '../../wells/timeDepth.ts';
import { mdsOf, pathOf } from './wells.ts';

/** TVDSS of a row that gives it, or TVD from the kelly bushing, or only measured depth; NaN where none can be had. */
function tvdssOf(objects: EarthObject[], well: Well | undefined, md: unknown, tvdss: unknown, tvd?: unknown): number {
  if (typeof tvdss === 'number') return tvdss;
  if (!well) return Number.NaN;
  if (typeof tvd === 'number') return tvd - well.kbM;
  return typeof md === 'number' ? pointAtMd(pathOf(objects, well), md).tvdss : Number.NaN;
}

const headOf = (objects: EarthObject[], name: string) =>
  objects.find((o): o is Well => o.kind === 'well' && o.name === name);

/**
 * Checkshots of a table below the seismic datum: TVDSS (m) and TWT (ms). Times that were counted from the kelly bushing
 * or the sea are brought to the datum by the replacement velocity that held when they were loaded; without the well's
 * head what needs it is left out.
 */
export function shotsOf(objects: EarthObject[], table: WellTable): { tvdss: number; twt: number }[] {
  const well = headOf(objects, table.well);
  const { reference = 'datum', datumM = 0, replacementVelocity = 1500 } = table;
  const from = reference === 'datum' ? datumM : reference === 'msl' ? 0 : (well?.kbM ?? Number.NaN);
  const early = (2000 * (from - datumM)) / replacementVelocity;
  return table.rows
    .map((r) => ({ tvdss: tvdssOf(objects, well, r[0], r[1], r[3]), twt: Number(r[2]) - early }))
    .filter((r) => Number.isFinite(r.tvdss) && Number.isFinite(r.twt));
}

/** Where the times of a table of checkshots begin: at the datum that held when it was loaded. */
export function startOfTable(objects: EarthObject[], table: WellTable): TimedDepth[] {
  return startOf(table.datumM ?? 0, table.replacementVelocity ?? 1500, headOf(objects, table.well)?.kbM);
}

/** Pressures (Pa) of a table by TVDSS (m); rows whose depth cannot be had yet are left out. */
export function pressurePoints(objects: EarthObject[], table: WellTable): { z: number; p: number }[] {
  const well = headOf(objects, table.well);
  return table.rows
    .map((r) => ({ z: tvdssOf(objects, well, r[0], r[1]), p: Number(r[2]) }))
    .filter((r) => Number.isFinite(r.z) && Number.isFinite(r.p));
}

/** Measured depths (m) at which checkshots of a table were taken, as far as they can be had. */
export function shotDepths(objects: EarthObject[], table: WellTable): number[] {
  const mdOf = mdsOf(objects, table.well);
  return table.rows.map((r) => mdOf(r[0], r[1], r[3])).filter(Number.isFinite);
}
