import { toIndex } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, Volume, Wavelet, Well } from '../../earth/objects.ts';
import { readInlines, shapeOf } from '../../storage/planes.ts';
import type { Store } from '../../storage/store.ts';
import type { TieWell } from '../../tie/chain.ts';
import type { Series } from '../../tie/match.ts';
import { mdAtTvdss, pointAtMd } from '../../wells/path.ts';
import { depthOfTwt, type TimeDepth, twtOfDepth } from '../../wells/timeDepth.ts';
import { shotsOf, startOfTable } from './checkshots.ts';
import { wellCurves } from './curves.ts';
import { relationOf } from './seeds.ts';
import { pathOf, tableOf } from './wells.ts';

/** What a tie has of a well, and whose times it begins with. */
export interface TieData extends TieWell {
  /** The well whose times the sonic hangs from, where it has no checkshots of its own. */
  borrowedFrom: string | null;
}

/**
 * Logs, path and checkshots of a well for its tie. One without checkshots hangs from the times of another well at the
 * same depths below the datum.
 * @param notes receives what is to be known of the data, in sentences
 */
export async function tieWellOf(
  store: Store,
  around: EarthObject[],
  well: Well,
  like?: Well,
  notes: string[] = [],
): Promise<TieData> {
  const logs = wellCurves(store, around, well, ['sonic']);
  if (!logs)
    throw new LithagonError('tie', `${well.name} has no sonic log, so its depths have no times of their own.`, {
      object: well.name,
      fix: 'Load its logs, or tie another well.',
    });
  const table = tableOf(around, well.name, 'checkshots');
  const borrowed = table || !like ? null : relationOf(around, like.name);
  if (!table && !borrowed)
    throw new LithagonError(
      'tie',
      like
        ? `Neither ${well.name} nor ${like.name} has checkshots or a tie, so the sonic has nothing to hang from.`
        : `${well.name} has no checkshots, so its sonic has nothing to hang from.`,
      { object: well.name, fix: 'Load its checkshots, or choose another well to take times from.' },
    );
  const shots = table ? shotsOf([well, ...around], table) : [];
  const sorted = [...shots].sort((a, b) => a.tvdss - b.tvdss);
  let latest = Number.NEGATIVE_INFINITY;
  const rising = sorted.filter((s) => {
    const later = s.twt > latest;
    latest = Math.max(latest, s.twt);
    return later;
  });
  const back = sorted.length - rising.length;
  if (back > 0) notes.push(`${back} checkshots of ${well.name} go back in time with depth and were left out.`);
  if (borrowed) {
    const last = logs.tvdss(logs.axis.count - 1);
    for (let z = borrowed.tvdss[0] + 50; z < Math.min(last, borrowed.tvdss[borrowed.tvdss.length - 1]); z += 50)
      rising.push({ tvdss: z, twt: twtOfDepth(borrowed, z) });
  }
  return {
    name: well.name,
    path: pathOf(around, well),
    firstM: logs.axis.firstM,
    stepM: logs.axis.stepM,
    sonic: (await logs.get('sonic')) as Float32Array,
    density: await logs.get('density'),
    shear: await logs.get('shear sonic'),
    shots: rising,
    start: table
      ? startOfTable([well, ...around], table)
      : borrowed
        ? [{ tvdss: borrowed.tvdss[0], twt: borrowed.twt[0] }]
        : undefined,
    borrowed: borrowed !== null,
    borrowedFrom: borrowed && like ? like.name : null,
  };
}

/** Seismic beside a well: one trace a bin on each side along the crossline axis, each following the path down. */
export interface Panel {
  firstMs: number;
  stepMs: number;
  samples: number;
  /** Bins from the path, negative to the left. */
  offsets: number[];
  /** `[offset][sample]`, NaN outside the survey. */
  data: Float32Array;
  /** Fractional line indexes of the path at each sample. */
  i: Float64Array;
  j: Float64Array;
}

/** Read the seismic along a well's path in time, with `beside` bins on each side; bilinear between traces. */
export async function panelAlong(
  store: Store,
  volume: Volume,
  path: TieWell['path'],
  relation: TimeDepth,
  beside: number,
): Promise<Panel> {
  const [ni, nj, nk] = shapeOf(volume);
  const { first, step } = volume.vertical;
  const i = new Float64Array(nk);
  const j = new Float64Array(nk);
  for (let k = 0; k < nk; k++) {
    const z = depthOfTwt(relation, first + k * step);
    const at = pointAtTvdss(path, z);
    [i[k], j[k]] = toIndex(volume.binGrid, at.x, at.y);
  }
  const inside = Array.from(i).filter((v, k) => v >= 0 && v <= ni - 1 && j[k] >= 0 && j[k] <= nj - 1);
  if (inside.length === 0)
    throw new LithagonError('tie', `The well lies outside ${volume.name}.`, {
      object: volume.name,
      fix: 'Choose a volume that covers the well.',
    });
  const i0 = Math.floor(inside.reduce((a, b) => Math.min(a, b)));
  const i1 = Math.min(ni, Math.ceil(inside.reduce((a, b) => Math.max(a, b))) + 1);
  const lines = await readInlines(store, volume, i0, i1);
  const offsets = Array.from({ length: 2 * beside + 1 }, (_, n) => n - beside);
  const data = new Float32Array(offsets.length * nk).fill(Number.NaN);
  const value = (a: number, b: number, k: number) => lines[((a - i0) * nj + b) * nk + k];
  offsets.forEach((offset, n) => {
    for (let k = 0; k < nk; k++) {
      const [a, b] = [i[k], j[k] + offset];
      if (!(a >= 0 && b >= 0 && a <= ni - 1 && b <= nj - 1)) continue;
      const [ia, jb] = [Math.min(Math.floor(a), ni - 2 < 0 ? 0 : ni - 2), Math.min(Math.floor(b), nj - 2)];
      const [fa, fb] = [a - ia, b - jb];
      const upper = Math.min(ia + 1, i1 - 1);
      data[n * nk + k] =
        (1 - fa) * ((1 - fb) * value(ia, jb, k) + fb * value(ia, jb + 1, k)) +
        fa * ((1 - fb) * value(upper, jb, k) + fb * value(upper, jb + 1, k));
    }
  });
  return { firstMs: first, stepMs: step, samples: nk, offsets, data, i, j };
}

/** The trace of a panel that follows the path itself. */
export function alongPath(panel: Panel): Series {
  const n = panel.offsets.indexOf(0);
  return {
    firstMs: panel.firstMs,
    stepMs: panel.stepMs,
    values: Float64Array.from(panel.data.subarray(n * panel.samples, (n + 1) * panel.samples)),
  };
}

/** Where a path first passes a depth below the datum; its ends beyond them. */
function pointAtTvdss(path: TieWell['path'], tvdss: number) {
  const last = path.md[path.md.length - 1];
  const md = mdAtTvdss(path, Math.max(tvdss, path.tvdss[0]));
  return pointAtMd(path, Number.isNaN(md) ? last : Math.min(md, last));
}

/** Wells whose logs and traces a wavelet was made of. */
export const wellsBehind = (wavelet: Wavelet): string[] => wavelet.wells ?? wavelet.estimate?.wells ?? [];
