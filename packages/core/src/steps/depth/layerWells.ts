import type { EarthObject, ModelLayer, ResultTable, Well } from '../../earth/objects.ts';
import { layerPoints, type SeaBed } from '../../project/layers.ts';
import { type Above, thicknessByTrace } from '../../velocity/column.ts';
import { type LayerPoints, misfitOf, missAtBase } from '../../velocity/fit.ts';
import type { Law } from '../../velocity/law.ts';
import { traceAt, type VelocityCube } from '../../velocity/model.ts';
import { type LayerInWell, velocityIn } from '../../velocity/spread.ts';

/** A well between the top and the base of a layer, where it meets the base. */
export interface WellInLayer extends LayerPoints {
  well: string;
  x: number;
  y: number;
}

/** Wells that tell of a layer: those that have both of its boundaries, and time between them. */
export function wellsIn(
  around: EarthObject[],
  wells: Well[],
  upper: string | null,
  lower: string | null,
  above: Above,
  seaBed: SeaBed | undefined,
): WellInLayer[] {
  return wells.flatMap((well) => {
    const points = layerPoints(around, well, upper, lower, above, seaBed);
    return points && points.points[points.points.length - 1].t > points.top.t ? [{ well: well.name, ...points }] : [];
  });
}

/** Thickness that a velocity volume gives a layer in a well, m; NaN where it does not reach. */
function thicknessOfCube({ x, y, top, points }: WellInLayer, cube: VelocityCube | undefined): number {
  const trace = cube ? traceAt(cube, x, y) : null;
  return trace ? thicknessByTrace(trace, top, points[points.length - 1].t) : Number.NaN;
}

/** A well's own velocity of a layer. */
export function inWell(well: WellInLayer, cube: VelocityCube | undefined): LayerInWell {
  const base = well.points[well.points.length - 1];
  return {
    well: well.well,
    x: well.x,
    y: well.y,
    velocity: velocityIn(well),
    middle: 0.5 * (well.top.t + base.t),
    seismic: (2000 * thicknessOfCube(well, cube)) / (base.t - well.top.t),
  };
}

export type MadeLayer = Omit<ModelLayer, 'times' | 'v0Map'> & {
  times: Float32Array | null;
  v0Map: Float32Array | null;
};

/** A layer with what wells have of it beside what its law makes there. */
export function madeLayer(
  { base, top }: { base: string; top?: string },
  law: Law,
  times: Float32Array | null,
  wells: WellInLayer[],
  fitted: boolean,
  cube: VelocityCube | undefined,
): MadeLayer {
  const missOf = (w: WellInLayer) =>
    law.form === 'velocity volume'
      ? law.v0 * thicknessOfCube(w, cube) - (w.points[w.points.length - 1].z - w.top.z)
      : missAtBase(law, w);
  const misses = wells.map(missOf);
  const known = misses.filter(Number.isFinite);
  return {
    base,
    ...(top && top !== base ? { top } : {}),
    ...law,
    times,
    v0Map: null,
    wells: wells
      .map((w, n) => ({
        well: w.well,
        x: w.x,
        y: w.y,
        top: w.top,
        base: w.points[w.points.length - 1],
        miss: misses[n],
      }))
      .filter((w) => Number.isFinite(w.miss)),
    rms:
      law.form !== 'velocity volume'
        ? misfitOf(law, wells)
        : known.length > 0
          ? Math.sqrt(known.reduce((s, m) => s + m * m, 0) / known.length)
          : 0,
    points: fitted ? wells.reduce((n, w) => n + w.points.length, 0) : 0,
  };
}

/** What wells have of each layer, as a table. */
export function velocityTable(layers: ModelLayer[]): Pick<ResultTable, 'kind' | 'columns' | 'rows'> {
  return {
    kind: 'result table',
    columns: [
      { name: 'Layer', unit: '' },
      { name: 'Well', unit: '' },
      { name: 'Top', unit: 'm TVDSS' },
      { name: 'Base', unit: 'm TVDSS' },
      { name: 'Time in it', unit: 'ms' },
      { name: 'Velocity', unit: 'm/s' },
      { name: 'Base by the model, beyond the well', unit: 'm' },
    ],
    rows: layers.flatMap(({ base, wells = [] }) =>
      wells.map((w) => [
        base ? `to ${base}` : 'below',
        w.well,
        w.top.z,
        w.base.z,
        w.base.t - w.top.t,
        (2000 * (w.base.z - w.top.z)) / (w.base.t - w.top.t),
        w.miss,
      ]),
    ),
  };
}
