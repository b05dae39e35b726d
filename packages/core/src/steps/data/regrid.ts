import { z } from 'zod';
import { filterTraces } from '../../conditioning/filter.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import { crosslineAt, inlineAt, toMap } from '../../earth/lattice.ts';
import type { Volume } from '../../earth/objects.ts';
import { sincAt } from '../../numerics/sinc.ts';
import { RunningStatistics } from '../../numerics/statistics.ts';
import { readInlines, shapeOf } from '../../storage/planes.ts';
import { volumeWriter } from '../../storage/volumes.ts';
import { type AnyLocal, type Draft, defineStep, number, type RunContext } from '../define.ts';

/** Which lines of a volume are kept, and at which samples (fractional indexes) its traces are taken. */
interface Taken {
  i: { from: number; step: number; count: number };
  j: { from: number; step: number; count: number };
  k: { from: number; step: number; count: number };
}

type Work = Pick<RunContext<Record<string, never>, unknown>, 'store' | 'idFor' | 'signal' | 'progress'>;

/** Low-pass for samples that are taken further apart than they lie: nothing above nine tenths of the new Nyquist. */
function antiAlias(data: Float32Array, count: number, step: number, wider: number): void {
  if (wider <= 1.0001) return;
  const nyquist = 500 / (step * wider);
  const pass = 0.75 * nyquist;
  filterTraces(data, count, step, (hz) =>
    hz <= pass ? 1 : hz >= 0.95 * nyquist ? 0 : 0.5 + 0.5 * Math.cos((Math.PI * (hz - pass)) / (0.95 * nyquist - pass)),
  );
}

/** A volume of some lines of another, with its traces taken at other samples. */
async function repick(
  { store, idFor, signal, progress }: Work,
  volume: Volume,
  pick: Taken,
  role: string,
): Promise<Draft> {
  const [, , nk] = shapeOf(volume);
  const { i, j, k } = pick;
  const shape: [number, number, number] = [i.count, j.count, k.count];
  const writer = await volumeWriter(store, idFor(role), shape);
  const statistics = new RunningStatistics();
  let missing = 0;
  for (let a0 = 0; a0 < i.count; a0 += writer.slab) {
    stopIf(signal);
    const slab = new Float32Array(writer.slab * j.count * k.count).fill(Number.NaN);
    const lines = Math.min(writer.slab, i.count - a0);
    for (let a = 0; a < lines; a++) {
      const line = i.from + (a0 + a) * i.step;
      const data = await readInlines(store, volume, line, line + 1);
      antiAlias(data, nk, volume.vertical.step, k.step);
      for (let b = 0; b < j.count; b++) {
        const from = (j.from + b * j.step) * nk;
        const to = (a * j.count + b) * k.count;
        let live = 0;
        for (let c = 0; c < k.count; c++) {
          const at = k.from + c * k.step;
          const near = Math.round(at);
          const value = Math.abs(at - near) < 1e-9 ? data[from + near] : sincAt(data, from, nk, at);
          slab[to + c] = value;
          if (value === value) live++;
        }
        if (live === 0) missing++;
      }
    }
    statistics.add(slab.subarray(0, lines * j.count * k.count));
    await writer.write(a0, slab);
    progress((a0 + lines) / i.count);
  }
  await writer.finish();
  const { lattice, vertical } = volume;
  return {
    kind: 'volume',
    lattice: {
      inline: { first: inlineAt(lattice, i.from), step: lattice.inline.step * i.step, count: i.count },
      crossline: { first: crosslineAt(lattice, j.from), step: lattice.crossline.step * j.step, count: j.count },
      origin: toMap(lattice, i.from, j.from),
      perInline: [lattice.perInline[0] * i.step, lattice.perInline[1] * i.step],
      perCrossline: [lattice.perCrossline[0] * j.step, lattice.perCrossline[1] * j.step],
    },
    domain: volume.domain,
    quantity: volume.quantity,
    unit: volume.unit,
    polarity: volume.polarity,
    vertical: { first: vertical.first + k.from * vertical.step, step: vertical.step * k.step, count: k.count },
    layouts: writer.layouts,
    statistics: statistics.finish(),
    traces: { live: i.count * j.count - missing, missing, duplicate: 0 },
  };
}

const whole = (axis: { count: number }) => ({ from: 0, step: 1, count: axis.count });
const seismic = { kind: 'volume', title: 'Seismic' } as const;
const NONE = { inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY };

const lineNumber = (title: string, description: string, initial: number) =>
  number({ title, description }, { min: -1e6, max: 1e6, step: 1, whole: true, initial });
const cropParams = z.object({
  firstInline: lineNumber('First inline', 'Inlines before it are left out.', -1e6),
  lastInline: lineNumber('Last inline', 'Inlines after it are left out.', 1e6),
  firstCrossline: lineNumber('First crossline', 'Crosslines before it are left out.', -1e6),
  lastCrossline: lineNumber('Last crossline', 'Crosslines after it are left out.', 1e6),
  from: number(
    { title: 'From', description: 'Time (or depth, m) that the volume begins at.', unit: 'ms' },
    { min: -20000, max: 20000, step: 4, initial: -20000 },
  ),
  to: number(
    { title: 'To', description: 'Time (or depth, m) that it ends at.', unit: 'ms' },
    { min: -20000, max: 20000, step: 4, initial: 20000 },
  ),
});

type CropParams = z.infer<typeof cropParams>;

function cropOf(volume: Volume, p: CropParams): Taken {
  const range = (axis: { first: number; step: number; count: number }, a: number, b: number) => {
    const [low, high] = [Math.min(a, b), Math.max(a, b)];
    const ends = [(low - axis.first) / axis.step, (high - axis.first) / axis.step].sort((x, y) => x - y);
    const from = Math.max(0, Math.ceil(ends[0] - 1e-6));
    const to = Math.min(axis.count - 1, Math.floor(ends[1] + 1e-6));
    return { from, step: 1, count: to - from + 1 };
  };
  const pick: Taken = {
    i: range(volume.lattice.inline, p.firstInline, p.lastInline),
    j: range(volume.lattice.crossline, p.firstCrossline, p.lastCrossline),
    k: range(volume.vertical, p.from, p.to),
  };
  if (pick.i.count < 1 || pick.j.count < 1 || pick.k.count < 2)
    throw new LithagonError('params', `Nothing of ${volume.name} lies in that range.`, {
      object: volume.name,
      fix: 'Choose lines and times within the volume. Nothing was changed.',
    });
  return pick;
}

/** On the line that is looked at, what a crop leaves out is empty. */
const cropTrial: AnyLocal<CropParams> = {
  input: 'seismic',
  halo: () => NONE,
  prepare: async (_, volume, p) => cropOf(volume, p),
  evaluate: (block, _, { i, j, k }: Taken) => {
    const out = block.data.slice();
    const [lines, traces, count] = block.size;
    const within = (n: number, axis: Taken['i']) => n >= axis.from && n < axis.from + axis.count;
    for (let a = 0; a < lines; a++)
      for (let b = 0; b < traces; b++)
        for (let c = 0; c < count; c++)
          if (!within(block.from[0] + a, i) || !within(block.from[1] + b, j) || !within(block.from[2] + c, k))
            out[(a * traces + b) * count + c] = Number.NaN;
    return out;
  },
};

export const crop = defineStep({
  id: 'data.crop',
  version: 1,
  stage: 'data',
  title: 'Crop',
  summary: 'A part of a volume: some of its lines, between two times or depths.',
  source: 'Samples as they are (SEG-Y rev 2.0, 2017, for the numbering of lines)',
  reach: 'trace',
  inputs: { seismic },
  params: cropParams,
  outputs: { part: { kind: 'volume', title: 'Part' } },
  trial: cropTrial,
  run: async (context) => {
    const volume = context.inputs.seismic;
    return { part: await repick(context, volume, cropOf(volume, context.params), 'part') };
  },
});

const every = (title: string, description: string) =>
  number({ title, description }, { min: 1, max: 20, whole: true, initial: 2 });
const decimateParams = z.object({
  inlines: every('Every … inline', '2 keeps every second one.'),
  crosslines: every('Every … crossline', '2 keeps every second one.'),
});

export const decimate = defineStep({
  id: 'data.decimate',
  version: 1,
  stage: 'data',
  title: 'Decimate',
  summary: 'Every so many inlines and crosslines, for a quick look at a large survey.',
  source: 'Samples as they are (SEG-Y rev 2.0, 2017, for the numbering of lines)',
  reach: 'trace',
  inputs: { seismic },
  params: decimateParams,
  outputs: { part: { kind: 'volume', title: 'Decimated' } },
  trial: {
    input: 'seismic',
    halo: () => NONE,
    evaluate: (block, p) => {
      const out = block.data.slice();
      const [lines, traces, count] = block.size;
      for (let a = 0; a < lines; a++)
        for (let b = 0; b < traces; b++)
          if ((lines > 1 && (block.from[0] + a) % p.inlines) || (traces > 1 && (block.from[1] + b) % p.crosslines))
            out.fill(Number.NaN, (a * traces + b) * count, (a * traces + b + 1) * count);
      return out;
    },
  },
  run: async (context) => {
    const volume = context.inputs.seismic;
    const { inline, crossline } = volume.lattice;
    const { inlines, crosslines } = context.params;
    return {
      part: await repick(
        context,
        volume,
        {
          i: { from: 0, step: inlines, count: Math.ceil(inline.count / inlines) },
          j: { from: 0, step: crosslines, count: Math.ceil(crossline.count / crosslines) },
          k: whole(volume.vertical),
        },
        'part',
      ),
    };
  },
});

const resampleParams = z.object({
  step: number(
    {
      title: 'Sample interval',
      description: 'The new one; a wider one is filtered first so that nothing folds over.',
      unit: 'ms',
    },
    { min: 0.25, max: 50, step: 0.25, initial: 2 },
  ),
});

export const resample = defineStep({
  id: 'data.resample',
  version: 1,
  stage: 'data',
  title: 'Resample',
  summary: 'Traces at another sample interval, by a windowed sinc.',
  source: 'Kaiser & Schafer (1980), IEEE Trans. ASSP 28, 105–107',
  reach: 'trace',
  inputs: { seismic },
  params: resampleParams,
  outputs: { resampled: { kind: 'volume', title: 'Resampled' } },
  trial: {
    input: 'seismic',
    halo: () => NONE,
    // what is left of each trace, at the samples that the line has
    evaluate: (block, p) => {
      const out = block.data.slice();
      antiAlias(out, block.size[2], block.stepMs, p.step / block.stepMs);
      return out;
    },
  },
  run: async (context) => {
    const volume = context.inputs.seismic;
    const { vertical, lattice } = volume;
    const ratio = context.params.step / vertical.step;
    return {
      resampled: await repick(
        context,
        volume,
        {
          i: whole(lattice.inline),
          j: whole(lattice.crossline),
          k: { from: 0, step: ratio, count: Math.floor((vertical.count - 1) / ratio + 1e-9) + 1 },
        },
        'resampled',
      ),
    };
  },
});
