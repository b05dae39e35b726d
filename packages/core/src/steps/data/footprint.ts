import { z } from 'zod';
import {
  footprintFilter,
  footprintWaves,
  type Wave,
  type Wavenumbers,
  wavenumbersOf,
} from '../../conditioning/footprint.ts';
import { stopIf } from '../../earth/errors.ts';
import type { Volume } from '../../earth/objects.ts';
import { RunningStatistics } from '../../numerics/statistics.ts';
import { createArray, readChunk, writeChunk } from '../../storage/arrays.ts';
import { chunkLength } from '../../storage/keys.ts';
import { readPlane, shapeOf } from '../../storage/planes.ts';
import type { Store } from '../../storage/store.ts';
import { layoutFor, remakePlanes, volumeWriter } from '../../storage/volumes.ts';
import { type AnyLocal, type Draft, defineStep, number } from '../define.ts';

const params = z.object({
  protect: number(
    {
      title: 'Left alone',
      description: 'Wavenumbers below this part of Nyquist are taken for geology.',
    },
    { min: 0.02, max: 0.9, step: 0.01, initial: 0.15 },
  ),
  thresholdDb: number(
    {
      title: 'Stands out by',
      description: 'How far above its surroundings footprint stands, slice after slice.',
      unit: 'dB',
    },
    { min: 1, max: 30, step: 0.5, initial: 4 },
  ),
});

/** Slices whose spectra are averaged to find the footprint. */
const LOOKED_AT = 48;

async function wavesOf(store: Store, volume: Volume, p: z.infer<typeof params>, signal?: AbortSignal): Promise<Wave[]> {
  const [ni, nj, nk] = shapeOf(volume);
  let mean: Wavenumbers | null = null;
  const every = Math.max(1, Math.floor(nk / LOOKED_AT));
  for (let k = Math.floor(every / 2); k < nk; k += every) {
    stopIf(signal);
    const own = wavenumbersOf(await readPlane(store, volume, 'slice', k), ni, nj);
    const total = own.amplitude.reduce((a, b) => a + b, 1e-30);
    mean ??= { ...own, amplitude: new Float64Array(own.amplitude.length) };
    // slices count alike, however strong they are
    for (let n = 0; n < own.amplitude.length; n++) mean.amplitude[n] += own.amplitude[n] / total;
  }
  return mean ? footprintWaves(mean, [ni, nj], p) : [];
}

/** On the line that is looked at: whole slices are filtered, and the line is cut from them. */
const trial: AnyLocal<z.infer<typeof params>> = {
  input: 'seismic',
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  prepare: async (_, volume, p, store) => {
    const waves = await wavesOf(store, volume, p);
    const [ni, nj, nk] = shapeOf(volume);
    const filter = footprintFilter(ni, nj, waves);
    const slices: Float32Array[] = [];
    for (let k = 0; k < nk; k++) slices.push(filter(await readPlane(store, volume, 'slice', k)).clean);
    return { slices, nj };
  },
  evaluate: (block, _, { slices, nj }: { slices: Float32Array[]; nj: number }) => {
    const [lines, traces, count] = block.size;
    const out = new Float32Array(lines * traces * count);
    for (let a = 0; a < lines; a++)
      for (let b = 0; b < traces; b++)
        for (let k = 0; k < count; k++)
          out[(a * traces + b) * count + k] = slices[block.from[2] + k][(block.from[0] + a) * nj + block.from[1] + b];
    return out;
  },
};

export const footprint = defineStep({
  id: 'data.footprint',
  version: 2,
  stage: 'data',
  title: 'Acquisition footprint',
  summary:
    'Takes out patterns across slices that stand out in one after the other; what was taken out is kept beside it.',
  source: 'Marfurt, Scheet, Sharp & Harper (1998), Geophysics 63, 1024–1035',
  reach: 'global',
  inputs: { seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude', 'attribute', 'variance'] } },
  params,
  outputs: {
    clean: { kind: 'volume', title: 'Without footprint' },
    removed: { kind: 'volume', title: 'Footprint' },
  },
  trial,
  async run({ inputs, params: p, store, idFor, signal, progress, warn }) {
    // slice by slice through inlines would read the whole volume for each
    const own = `${idFor('clean')}/source`;
    const volume = inputs.seismic.layouts.slice
      ? inputs.seismic
      : await cutSlicesOf(store, inputs.seismic, own, signal);
    const shape = shapeOf(volume);
    const [ni, nj, nk] = shape;
    const waves = await wavesOf(store, volume, p, signal);
    const filter = footprintFilter(ni, nj, waves);
    if (waves.length === 0) warn('No pattern stands out by that much: nothing was taken out.');
    else {
      const period = ({ alongRows, alongColumns }: Wave) => (1 / Math.hypot(alongRows, alongColumns)).toFixed(1);
      warn(
        `${waves.length} ${waves.length === 1 ? 'pattern was' : 'patterns were'} taken out, with periods of ${waves.slice(0, 6).map(period).join(', ')}${waves.length > 6 ? ' …' : ''} bins.`,
      );
    }
    progress(0.1);
    const roles = ['clean', 'removed'] as const;
    // slices are kept as they come, and inlines put together from them
    const scratch = Object.fromEntries(
      roles.map((role) => [role, layoutFor(`${idFor(role)}/scratch`, shape, 'slice')]),
    ) as Record<(typeof roles)[number], ReturnType<typeof layoutFor>>;
    for (const role of roles) await createArray(store, scratch[role], ['inline', 'crossline', 'sample']);
    const [lines, , thick] = scratch.clean.chunk;
    for (let s = 0; s * thick < nk; s++) {
      stopIf(signal);
      const count = Math.min(thick, nk - s * thick);
      const made: Record<(typeof roles)[number], Float32Array>[] = [];
      for (let c = 0; c < count; c++) made.push(filter(await readPlane(store, volume, 'slice', s * thick + c)));
      for (const role of roles)
        for (let g = 0; g * lines < ni; g++) {
          const piece = new Float32Array(chunkLength(scratch[role])).fill(Number.NaN);
          const bins = Math.min(lines, ni - g * lines) * nj;
          for (let c = 0; c < count; c++)
            for (let b = 0; b < bins; b++) piece[b * thick + c] = made[c][role][g * lines * nj + b];
          await writeChunk(store, scratch[role], [g, 0, s], piece);
        }
      progress(0.1 + (0.6 * (s + 1) * thick) / nk);
    }
    const out: Record<string, Draft> = {};
    for (const role of roles) {
      const writer = await volumeWriter(store, idFor(role), shape);
      const statistics = new RunningStatistics();
      for (let g = 0; g * lines < ni; g++) {
        stopIf(signal);
        const real = Math.min(lines, ni - g * lines);
        const group = new Float32Array(Math.ceil(real / writer.slab) * writer.slab * nj * nk).fill(Number.NaN);
        for (let s = 0; s * thick < nk; s++) {
          const piece = await readChunk(store, scratch[role], [g, 0, s]);
          const count = Math.min(thick, nk - s * thick);
          for (let b = 0; b < real * nj; b++)
            for (let c = 0; c < count; c++) group[b * nk + s * thick + c] = piece[b * thick + c];
        }
        statistics.add(group.subarray(0, real * nj * nk));
        await writer.write(g * lines, group);
      }
      await writer.finish();
      await store.removeArrays(`${idFor(role)}/scratch/`);
      out[role] = {
        kind: 'volume',
        lattice: volume.lattice,
        domain: volume.domain,
        quantity: volume.quantity,
        unit: volume.unit,
        polarity: volume.polarity,
        vertical: volume.vertical,
        layouts: writer.layouts,
        statistics: statistics.finish(),
        traces: volume.traces,
      };
      progress(role === 'clean' ? 0.85 : 1);
    }
    await store.removeArrays(`${own}/`);
    return out;
  },
});

/** A volume that is not cut for slices yet, with a copy of its own for them. */
async function cutSlicesOf(store: Store, volume: Volume, key: string, signal?: AbortSignal): Promise<Volume> {
  const { inline } = volume.layouts;
  const layouts = { inline, slice: layoutFor(key, shapeOf(volume), 'slice', inline.scaled) };
  await remakePlanes(store, layouts, signal);
  return { ...volume, layouts };
}
