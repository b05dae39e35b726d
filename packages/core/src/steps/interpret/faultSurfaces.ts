import { z } from 'zod';
import { type BinGrid, toIndex, toMap } from '../../earth/binGrid.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Fault, ResultTable, Volume } from '../../earth/objects.ts';
import { shapeOfGrid } from '../../engine/local.ts';
import { growPieces, orientationOf, type Piece, type Ridges, ridgesCollector } from '../../faults/grow.ts';
import { type Joined, joinPieces, withoutFlanks } from '../../faults/join.ts';
import { metresOfStep } from '../../faults/orientation.ts';
import { areaOf, binsOf, type Sheet, smoothSheet, sticksOf } from '../../faults/sheet.ts';
import { during } from '../../numerics/stop.ts';
import { readRegion } from '../../storage/regions.ts';
import type { Store } from '../../storage/store.ts';
import { type Draft, defineStep, eachRole, number } from '../define.ts';

/** Most surfaces that a run gives. */
const MOST = 80;

const params = z.object({
  seed: number(
    { title: 'Begin at', description: 'Strength of a ridge that a surface begins at.', among: 'ridges' },
    { min: 0.05, max: 1, step: 0.01, initial: 0.4 },
  ),
  least: number(
    { title: 'Grow down to', description: 'Strength that a surface is followed down to.', among: 'ridges' },
    { min: 0, max: 1, step: 0.01, initial: 0.15 },
  ),
  turn: number(
    { title: 'May turn', description: 'How far the plane may turn from a place of a surface to the next.', unit: '°' },
    { min: 5, max: 90, step: 1, initial: 35 },
  ),
  gap: number(
    {
      title: 'May miss',
      description: 'Lines or samples that may be missing between a place and the next.',
      unit: 'places',
    },
    { min: 0, max: 6, whole: true, initial: 1 },
  ),
  joinGap: number(
    {
      title: 'Join across',
      description: 'Two surfaces are one fault where no more than this parts them; 0 joins nothing.',
      unit: 'm',
    },
    { min: 0, max: 2000, step: 25, initial: 300 },
  ),
  joinOff: number(
    {
      title: 'Join within',
      description: 'And where each lies this near to the other’s plane, carried on.',
      unit: 'bins',
    },
    { min: 0.5, max: 10, step: 0.5, initial: 2.5 },
  ),
  joinTurn: number(
    { title: 'Join below', description: 'And where their planes are turned by no more than this.', unit: '°' },
    { min: 1, max: 60, step: 1, initial: 20 },
  ),
  smallest: number(
    { title: 'Smallest area', description: 'Surfaces smaller than this are left out.', unit: 'km²' },
    { min: 0, max: 20, step: 0.05, initial: 0.1 },
  ),
  leastMean: number(
    { title: 'Minimum mean strength', description: 'Surfaces that are weaker than this on the whole are left out.' },
    { min: 0, max: 1, step: 0.01, initial: 0.25 },
  ),
  dipFrom: number(
    { title: 'Dips from', description: 'Surfaces that are flatter on the whole are left out.', unit: '°' },
    { min: 0, max: 90, step: 1, initial: 25 },
  ),
  dipTo: number(
    {
      title: 'Dips to',
      description:
        'Surfaces that are steeper on the whole are left out: what stands upright is often a shadow in time, no fault.',
      unit: '°',
    },
    { min: 0, max: 90, step: 1, initial: 78 },
  ),
  velocity: number(
    {
      title: 'Velocity',
      description: 'That turns time into depth for dips and areas where no volume of velocities is given.',
      unit: 'm/s',
    },
    { min: 300, max: 8000, step: 50, initial: 2500 },
  ),
});

const SLAB = 32;

/** Ridges of the volumes, read slab by slab. */
async function readRidges(
  store: Store,
  volumes: Record<'ridges' | 'strength' | 'dip' | 'azimuth', Volume>,
  least: number,
  sampleM: number,
  work: { signal?: AbortSignal; progress(part: number): void },
): Promise<Ridges> {
  const shape = shapeOfGrid(volumes.ridges);
  const [ni, nj, nk] = shape;
  const collect = ridgesCollector(shape, volumes.ridges.binGrid, sampleM);
  for (let i = 0; i < ni; i += SLAB) {
    stopIf(work.signal);
    const to = Math.min(ni, i + SLAB);
    const read = (volume: Volume, more = 0) =>
      readRegion(store, volume, { i: [i - more, to + more], j: [0, nj], k: [0, nk] });
    const [ridges, strength, dip, azimuth] = [
      await read(volumes.ridges),
      await read(volumes.strength, 1),
      await read(volumes.dip),
      await read(volumes.azimuth),
    ];
    during(work.signal, () => collect.add(i, to, { ridges, strength, dip, azimuth }, least));
    work.progress((0.5 * to) / ni);
  }
  return collect.finish();
}

/** A surface with what there is to say of it. */
interface Found {
  sheet: Sheet;
  piece: Piece;
  facts: NonNullable<Fault['found']>;
}

/** Mean velocity along a surface, m/s, as a volume of velocities has it; null where that knows none there. */
async function speedsOf(store: Store, velocity: Volume) {
  const [ni, nj, nk] = shapeOfGrid(velocity);
  const held = await readRegion(store, velocity, { i: [0, ni], j: [0, nj], k: [0, nk] });
  const { first, step } = velocity.vertical;
  return (sheet: Sheet, grid: BinGrid, vertical: Volume['vertical']): number | null => {
    let [sum, count] = [0, 0];
    for (let a = 0; a < sheet.rows; a += 3)
      for (let k = 0; k < sheet.samples; k += 5) {
        const across = sheet.across[a * sheet.samples + k];
        if (Number.isNaN(across)) continue;
        const [i, j] = toIndex(velocity.binGrid, ...toMap(grid, ...binsOf(sheet, a, across))).map(Math.round);
        const n = Math.round((vertical.first + (sheet.sample + k) * vertical.step - first) / step);
        if (i < 0 || j < 0 || n < 0 || i >= ni || j >= nj || n >= nk) continue;
        const v = held[(i * nj + j) * nk + n];
        if (!(v > 0)) continue;
        // slowness adds up
        sum += 1 / v;
        count++;
      }
    return count > 0 ? count / sum : null;
  };
}

/** How two surfaces came to be one, in words. */
const reasonOf = ({ gapM, offBins, turn }: Joined) =>
  `across ${gapM.toFixed(0)} m, ${offBins.toFixed(1)} bins off its plane, turned by ${turn.toFixed(0)}°`;

function tableOf(found: Found[]): Draft<ResultTable> {
  return {
    kind: 'result table',
    columns: [
      { name: 'Fault', unit: '' },
      { name: 'Area', unit: 'm2' },
      { name: 'Mean strength', unit: '' },
      { name: 'Strike', unit: 'deg' },
      { name: 'Dip', unit: 'deg' },
      { name: 'Dips towards', unit: 'deg' },
      { name: 'Pieces', unit: '' },
    ],
    rows: found.map(({ facts }, n) => [
      n + 1,
      facts.areaM2,
      facts.strength,
      (facts.azimuth + 270) % 360,
      facts.dip,
      facts.azimuth,
      facts.joined.length + 1,
    ]),
  };
}

export const faultSurfaces = defineStep({
  id: 'interpret.faultSurfaces',
  version: 1,
  stage: 'interpret',
  purpose: 'Faults found',
  title: 'Fault surfaces',
  summary:
    'Grows ridges along strike and dip to surfaces, joins those that are one fault by a stated rule, and leaves out what is small or weak. Each is a fault like any other.',
  formula:
    'A neighbour within 1.5 bins of the plane, turned no more than allowed; a weaker surface along a stronger one, within six bins, is its flank and left out; two surfaces are one where gap, offset from the plane carried on and turn are all within their limits.',
  avoid: 'With a gap so wide that faults which only stand in line become one.',
  source:
    'Hale (2013), Geophysics 78, O33–O43; smoothed by local regression, Cleveland (1979), J. Am. Stat. Assoc. 74, 829–836',
  reach: 'global',
  inputs: {
    ridges: {
      kind: 'volume',
      title: 'Fault ridges',
      quantity: ['fault strength'],
      usual: { step: 'interpret.faultRidges', output: 'ridges' },
    },
    strength: {
      kind: 'volume',
      title: 'Fault strength',
      quantity: ['fault strength'],
      usual: { step: 'interpret.faultStrength', output: 'strength' },
    },
    dip: {
      kind: 'volume',
      title: 'Dip of the best plane',
      quantity: ['dip angle'],
      usual: { step: 'interpret.faultStrength', output: 'dip' },
    },
    azimuth: {
      kind: 'volume',
      title: 'Azimuth of the best plane',
      quantity: ['azimuth'],
      usual: { step: 'interpret.faultStrength', output: 'azimuth' },
    },
    velocity: { kind: 'volume', title: 'Velocity', quantity: ['interval velocity'], domain: 'twt', optional: true },
  },
  params,
  outputs: {
    fault: { kind: 'fault', title: 'Fault', several: MOST },
    table: { kind: 'result table', title: 'Table of faults' },
  },
  async run({ inputs, params: p, store, signal, progress, warn }) {
    const { ridges: volume } = inputs;
    const { binGrid: grid, vertical, domain } = volume;
    const sampleM = metresOfStep(domain, vertical.step, p.velocity);
    const speed = domain === 'twt' && inputs.velocity ? await speedsOf(store, inputs.velocity) : null;
    const ridges = await readRidges(store, inputs, p.least, sampleM, { signal, progress });
    const found = during(signal, () => {
      // noise ends within a few places: a tenth of the smallest fault is worth joining
      const bin = Math.hypot(...grid.perInline) * sampleM;
      const cells = Math.max(60, Math.round((0.25 * p.smallest * 1e6) / bin));
      const grown = growPieces(ridges, { seed: p.seed, least: p.least, turn: p.turn, gap: p.gap, smallest: cells });
      progress(0.7);
      const { pieces, joined } =
        p.joinGap > 0
          ? joinPieces(grown, { grid, sampleM }, { gapM: p.joinGap, offBins: p.joinOff, turn: p.joinTurn })
          : { pieces: grown.map((piece) => ({ piece, from: [] as number[] })), joined: [] };
      progress(0.9);
      return withoutFlanks(pieces)
        .map(({ piece, from }): Found => {
          const sheet = smoothSheet(piece);
          const metres = speed
            ? metresOfStep(domain, vertical.step, speed(sheet, grid, vertical) ?? p.velocity)
            : sampleM;
          const { dip, azimuth } = orientationOf(piece, grid, metres);
          const strength = piece.strength.reduce((a, b) => a + b, 0) / piece.strength.length;
          return {
            sheet,
            piece,
            facts: {
              areaM2: areaOf(sheet, grid, metres),
              strength,
              dip,
              azimuth,
              joined: joined.filter((j) => from.includes(j.first)).map(reasonOf),
            },
          };
        })
        .filter(({ facts }) => facts.areaM2 >= p.smallest * 1e6 && facts.strength >= p.leastMean)
        .filter(({ piece }) => {
          // as it was scanned: by the one velocity
          const { dip } = orientationOf(piece, grid, sampleM);
          return dip >= p.dipFrom && dip <= p.dipTo;
        })
        .sort((a, b) => b.facts.areaM2 - a.facts.areaM2);
    });
    if (found.length === 0)
      throw new LithagonError('empty', 'No ridge grows to a surface that is large and strong enough.', {
        object: volume.name,
        fix: 'Begin at less strength, grow further down, or let smaller and weaker surfaces be. Nothing was changed.',
      });
    if (found.length > MOST)
      warn(`${found.length} surfaces were found; the ${MOST} largest are kept. A greater smallest area leaves fewer.`);
    const kept = found.slice(0, MOST);
    return {
      ...Object.fromEntries(
        kept.map(({ sheet, facts }, n) => [
          eachRole('fault', String(n + 1)),
          { kind: 'fault' as const, domain, sticks: sticksOf(sheet, grid, vertical), found: facts },
        ]),
      ),
      table: tableOf(kept),
    };
  },
});
