import { type Kernels, type Room, roomIn, slantedMeans, slantedRoom, threadKernels } from '@lithagon/kernels';
import type { BinGrid } from '../earth/binGrid.ts';
import type { Block, Halo } from '../numerics/block.ts';
import { heed } from '../numerics/stop.ts';
import { type IndexPlane, type Orientation, toIndexPlane } from './orientation.ts';

/** Which planes are scanned, and over how much of each. */
export interface ScanSpec {
  /** Azimuths that planes may dip towards, degrees clockwise from grid north, from the first round to the second. */
  towards: [from: number, to: number];
  /** Dips below the horizontal, degrees. */
  dips: [least: number, most: number];
  /** Half of the length along strike and of the height down, metres. */
  halfLengthM: number;
  halfHeightM: number;
  /** Bins by which the edge of a plane may lie off between one orientation and the next. */
  spacing: number;
  /** Metres from a sample to the next. */
  sampleM: number;
}

/** A plane that is tried, in indexes, and over how many rows and samples on each side. */
export interface Tried extends Orientation, IndexPlane {
  rows: number;
  samples: number;
  /** Whether it is flatter or steeper than asked for: tried all the same, so that what lies out there is not taken for the last inside. */
  outside: boolean;
}

const RAD = Math.PI / 180;

/** Most that one sample may say, in units of the local energy, so that no single strong event is taken for a plane; two sides that have nothing in common differ by 2. */
const MOST = 6;

/** The planes of a scan: as far apart as the edge of a plane moves by `spacing` bins. */
export function planesOf(spec: ScanSpec, grid: BinGrid): Tried[] {
  const bin = Math.min(Math.hypot(...grid.perInline), Math.hypot(...grid.perCrossline));
  const turn = (((spec.towards[1] - spec.towards[0]) % 360) + 360) % 360 || 360;
  const strikes = Math.max(1, Math.ceil((turn * RAD * spec.halfLengthM) / (bin * spec.spacing)));
  const [most, least] = spec.dips.map((d) => 1 / Math.tan(Math.min(89.9, Math.max(5, d)) * RAD));
  const dips = Math.max(2, Math.ceil(((most - least) * spec.halfHeightM) / (bin * spec.spacing)) + 1);
  const out: Tried[] = [];
  for (let a = 0; a < strikes; a++) {
    // of a whole turn the last is the first
    const azimuth = (spec.towards[0] + (turn * (a + (turn === 360 ? 0 : 0.5))) / strikes) % 360;
    for (let d = -1; d <= dips; d++) {
      // one more on each side; past the vertical it dips the other way
      const cot = least + ((most - least) * d) / (dips - 1);
      const dip = Math.atan2(1, Math.max(0.01, cot)) / RAD;
      const plane = toIndexPlane({ dip, azimuth }, grid, spec.sampleM);
      const [row, across] =
        plane.along === 'inline' ? [grid.perInline, grid.perCrossline] : [grid.perCrossline, grid.perInline];
      const perRow = Math.hypot(row[0] + plane.perRow * across[0], row[1] + plane.perRow * across[1]);
      out.push({
        dip,
        azimuth,
        ...plane,
        rows: Math.max(1, Math.round(spec.halfLengthM / perRow)),
        samples: Math.max(1, Math.round(spec.halfHeightM / spec.sampleM)),
        outside: d < 0 || d === dips,
      });
    }
  }
  return out;
}

/** What a scan needs around a region. */
export function scanHalo(planes: Tried[]): Halo {
  const halo: Halo = { inline: 0, crossline: 0, sample: 0 };
  for (const p of planes) {
    const across = Math.ceil(Math.abs(p.perRow) * p.rows + Math.abs(p.perSample) * p.samples) + 4;
    const [i, j] = p.along === 'inline' ? [p.rows, across] : [across, p.rows];
    halo.inline = Math.max(halo.inline, i);
    halo.crossline = Math.max(halo.crossline, j);
    halo.sample = Math.max(halo.sample, p.samples);
  }
  return halo;
}

export interface Scanned {
  /** The greatest mean over the planes through each sample. */
  strength: Float32Array;
  /** Which plane has it. */
  plane: Float32Array;
}

/** Where what is scanned lies, with `scanHalo` around what is wanted. */
type Place = Pick<Block, 'size' | 'halo' | 'from' | 'shape'>;

/**
 * What is scanned, `[inline][crossline][sample]`, 0 where nothing is known: high where a fault is, or how the sides differ along lines
 * and along traces.
 */
export type Evidence = { plain: Float32Array } | { i: Float32Array; j: Float32Array };

/**
 * The best plane through every sample: the mean of the evidence over a rectangle in each plane, and the greatest of them. Means are
 * taken along strike and then down the dip, so that what a sample costs does not rest on how large the rectangle is (a scan over strike
 * and dip: Hale 2013, Geophysics 78, O33–O43). Differences are taken across the strike of each plane and squared.
 */
export function scanPlanes(evidence: Evidence, block: Place, planes: Tried[], grid: BinGrid): Scanned {
  const { size, halo } = block;
  const [ni, nj, nk] = [size[0] - 2 * halo.inline, size[1] - 2 * halo.crossline, size[2] - 2 * halo.sample];
  const strength = new Float32Array(ni * nj * nk).fill(Number.NEGATIVE_INFINITY);
  const plane = new Float32Array(ni * nj * nk);
  for (const along of ['inline', 'crossline'] as const) {
    const own = planes.flatMap((p, n) => (p.along === along ? [{ p, n }] : []));
    if (own.length > 0) scanAlong(along, own, evidence, block, grid, { strength, plane });
  }
  return { strength, plane };
}

/** The difference across the strike of a plane is so much of those along lines and along traces; a broken bed counts the same whatever the strike. */
function sharesOf({ azimuth }: Orientation, { perInline, perCrossline }: BinGrid): [number, number] {
  const towards = [Math.sin(azimuth * RAD), Math.cos(azimuth * RAD)];
  const [i, j] = [perInline, perCrossline].map((v) => (towards[0] * v[0] + towards[1] * v[1]) / Math.hypot(...v));
  const size = Math.abs(i) + Math.abs(j);
  return [i / size, j / size];
}

/** Values turned to slices, `[sample][along][across]`. */
function slicesOf(values: Float32Array, [mi, mj, mk]: [number, number, number], turned: boolean): Float32Array {
  const out = new Float32Array(values.length);
  for (let i = 0; i < mi; i++)
    for (let j = 0; j < mj; j++) {
      const trace = (i * mj + j) * mk;
      const at = turned ? j * mi + i : i * mj + j;
      for (let k = 0; k < mk; k++) out[k * mi * mj + at] = values[trace + k];
    }
  return out;
}

/** The planes that are followed along one axis. */
function scanAlong(
  along: 'inline' | 'crossline',
  planes: { p: Tried; n: number }[],
  evidence: Evidence,
  { size, halo, from, shape }: Place,
  grid: BinGrid,
  best: Scanned,
): void {
  const [ni, nj, nk] = [size[0] - 2 * halo.inline, size[1] - 2 * halo.crossline, size[2] - 2 * halo.sample];
  const kernels: Kernels = threadKernels();
  const room: Room = roomIn(kernels);
  const turned = along === 'crossline';
  const [ma, mb] = turned ? [size[1], size[0]] : [size[0], size[1]];
  const [ha, hb] = turned ? [halo.crossline, halo.inline] : [halo.inline, halo.crossline];
  const fa = (turned ? from[1] : from[0]) - ha;
  const [na, nb] = turned ? [nj, ni] : [ni, nj];
  const whole = turned ? shape[1] : shape[0];
  const mk = size[2];
  const k0 = from[2] - halo.sample;
  const image = room.take(mk * ma * mb);
  const smeared = room.take(na * mk * mb);
  const one = room.take(ma * mb);
  const down = room.take(mk * mb);
  const held = room.take(na * nk * mb);
  const which = room.take(na * nk * mb);
  const scratch = room.take(
    planes.reduce(
      (most, { p }) =>
        Math.max(
          most,
          slantedRoom(ma, mb, Math.abs(p.perRow), p.rows),
          slantedRoom(mk, mb, Math.abs(p.perSample), p.samples),
        ),
      0,
    ),
  );
  const slices =
    'plain' in evidence
      ? [slicesOf(evidence.plain, size, turned)]
      : [evidence.i, evidence.j].map((d) => slicesOf(d, size, turned));
  room.floats(held, na * nk * mb).fill(Number.NEGATIVE_INFINITY);
  room.floats(which, na * nk * mb).fill(0);
  let last: Tried | null = null;
  for (const { p, n } of planes) {
    if (!last || last.perRow !== p.perRow || last.rows !== p.rows) {
      const into = room.floats(image, mk * ma * mb);
      if (slices.length === 1) into.set(slices[0]);
      else {
        const [si, sj] = sharesOf(p, grid);
        const [di, dj] = slices;
        for (let m = 0; m < into.length; m++) {
          const d = si * di[m] + sj * dj[m];
          into[m] = Math.min(MOST, d * d);
        }
      }
      heed();
      const rows = { rows: ma, width: mb, stride: mb, first: fa, low: 0, high: whole };
      for (let k = 0; k < mk; k++) {
        slantedMeans(kernels, image + 4 * k * ma * mb, rows, p.perRow, p.rows, scratch, one, mb);
        for (let a = 0; a < na; a++)
          room.floats(smeared + 4 * (a * mk + k) * mb, mb).set(room.floats(one + 4 * (a + ha) * mb, mb));
      }
      last = p;
    }
    heed();
    const samples = { rows: mk, width: mb, stride: mb, first: k0, low: 0, high: shape[2] };
    for (let a = 0; a < na; a++) {
      slantedMeans(kernels, smeared + 4 * a * mk * mb, samples, p.perSample, p.samples, scratch, down, mb);
      const own = 4 * a * nk * mb;
      kernels.keepBest(down + 4 * halo.sample * mb, held + own, which + own, n, (nk * mb) & ~3);
      const rest = nk * mb - ((nk * mb) & ~3);
      if (rest > 0)
        keepRest(
          room,
          down + 4 * (halo.sample + nk) * mb,
          held + own + 4 * nk * mb,
          which + own + 4 * nk * mb,
          n,
          rest,
        );
    }
  }
  const [value, number] = [room.floats(held, na * nk * mb), room.floats(which, na * nk * mb)];
  for (let a = 0; a < na; a++)
    for (let k = 0; k < nk; k++)
      for (let b = 0; b < nb; b++) {
        const v = value[(a * nk + k) * mb + b + hb];
        const to = (turned ? b * nj + a : a * nj + b) * nk + k;
        if (v > best.strength[to]) {
          best.strength[to] = v;
          best.plane[to] = number[(a * nk + k) * mb + b + hb];
        }
      }
}

/** What is left over after fours; places are where the rows end. */
function keepRest(room: Room, values: number, best: number, which: number, number: number, rest: number): void {
  const [v, b, w] = [values, best, which].map((end) => room.floats(end - 4 * rest, rest));
  for (let n = 0; n < rest; n++)
    if (v[n] > b[n]) {
      b[n] = v[n];
      w[n] = number;
    }
}
