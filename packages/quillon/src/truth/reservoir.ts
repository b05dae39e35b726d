import { columnAt, emptyPoint, type Field, pointAt } from '../model/field.ts';
import { SURVEY, uOf, vOf } from '../model/survey.ts';
import { timeColumn, twtAt } from '../seismic/traces.ts';

/** The reservoir at a bin: channel sand (0..1), its thickness, and where gas begins and ends in it; NaN where there is none. */
export interface ReservoirRow {
  inline: number;
  crossline: number;
  channel: number;
  thickness: number;
  gasTop: number;
  gasBase: number;
  gasTopMs: number;
  gasBaseMs: number;
}

const RESERVOIR = 5;
/** Steps down the reservoir, m. */
const DZ = 0.5;

/** Every bin that has reservoir. */
export function reservoirRows(field: Field): ReservoirRow[] {
  const rows: ReservoirRow[] = [];
  const point = emptyPoint();
  const { inlines, crosslines } = SURVEY;
  for (let i = 0; i < inlines; i++)
    for (let j = 0; j < crosslines; j++) {
      const [inline, crossline] = [SURVEY.firstInline + i, SURVEY.firstCrossline + j];
      const [u, v] = [uOf(crossline), vOf(inline)];
      const column = columnAt(field, u, v);
      const [{ surfaces: first }] = column.blocks;
      const deepest = Math.max(...column.blocks.map((b) => b.surfaces[6]));
      let [thickness, gasTop, gasBase] = [0, Number.NaN, Number.NaN];
      for (let z = Math.min(first[5], ...column.blocks.map((b) => b.surfaces[5])) - DZ; z <= deepest; z += DZ) {
        pointAt(column, z, point);
        if (point.layer !== RESERVOIR) continue;
        thickness += DZ;
        if (point.fluid !== 'gas') continue;
        if (Number.isNaN(gasTop)) gasTop = z;
        gasBase = z;
      }
      if (thickness === 0) continue;
      const time = Number.isNaN(gasTop) ? null : timeColumn(field, u, v);
      rows.push({
        inline,
        crossline,
        channel: column.channel,
        thickness,
        gasTop,
        gasBase,
        gasTopMs: time ? twtAt(time, gasTop) : Number.NaN,
        gasBaseMs: time ? twtAt(time, gasBase) : Number.NaN,
      });
    }
  return rows;
}
