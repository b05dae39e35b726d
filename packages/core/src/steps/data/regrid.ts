import { z } from 'zod';
import { filterTraces } from '../../conditioning/filter.ts';
import { crosslineAt, inlineAt, toMap } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { Volume } from '../../earth/objects.ts';
import type { LocalStep, VolumeGrid } from '../../engine/local.ts';
import { sizeOf } from '../../numerics/block.ts';
import { sincAt } from '../../numerics/sinc.ts';
import { defineStep, number } from '../define.ts';

/** Which lines of a volume are kept, and at which samples (fractional indexes) its traces are taken. */
interface Taken {
  i: { from: number; step: number; count: number };
  j: { from: number; step: number; count: number };
  k: { from: number; step: number; count: number };
}

/** Low-pass for samples that are taken further apart than they lie: nothing above nine tenths of the new Nyquist. */
function antiAlias(data: Float32Array, count: number, step: number, wider: number): void {
  if (wider <= 1.0001) return;
  const nyquist = 500 / (step * wider);
  const pass = 0.75 * nyquist;
  filterTraces(data, count, step, (hz) =>
    hz <= pass ? 1 : hz >= 0.95 * nyquist ? 0 : 0.5 + 0.5 * Math.cos((Math.PI * (hz - pass)) / (0.95 * nyquist - pass)),
  );
}

/** Where the samples of such a volume lie. */
function gridOf({ binGrid, domain, vertical }: Volume, { i, j, k }: Taken): VolumeGrid {
  return {
    domain,
    binGrid: {
      ...binGrid,
      inline: { first: inlineAt(binGrid, i.from), step: binGrid.inline.step * i.step, count: i.count },
      crossline: { first: crosslineAt(binGrid, j.from), step: binGrid.crossline.step * j.step, count: j.count },
      origin: toMap(binGrid, i.from, j.from),
      perInline: [binGrid.perInline[0] * i.step, binGrid.perInline[1] * i.step],
      perCrossline: [binGrid.perCrossline[0] * j.step, binGrid.perCrossline[1] * j.step],
    },
    vertical: { first: vertical.first + k.from * vertical.step, step: vertical.step * k.step, count: k.count },
  };
}

/** A step that gives some lines of a volume, with its traces taken at other samples. */
function repicked<P>(output: string, taken: (volume: Volume, params: P) => Taken): LocalStep<P, undefined, Taken> {
  return {
    volumes: ['seismic'],
    outputs: { [output]: {} },
    halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
    ready: (_, params, { seismic }) => taken(seismic, params),
    grid: (volume, _, pick) => gridOf(volume, pick),
    needs({ i, j, k }, pick) {
      const span = ([a, b]: [number, number], axis: Taken['i']): [number, number] => [
        axis.from + a * axis.step,
        axis.from + (b - 1) * axis.step + 1,
      ];
      return { i: span(i, pick.i), j: span(j, pick.j), k };
    },
    evaluate({ seismic: { data, size, stepMs } }, _, { i, j, k }, region) {
      const [, mj, mk] = size;
      const [ni, nj, nk] = sizeOf(region);
      const out = new Float32Array(ni * nj * nk);
      const trace = new Float32Array(mk);
      for (let a = 0; a < ni; a++)
        for (let b = 0; b < nj; b++) {
          const from = (a * i.step * mj + b * j.step) * mk;
          trace.set(data.subarray(from, from + mk));
          antiAlias(trace, mk, stepMs, k.step);
          for (let c = 0; c < nk; c++) {
            const at = k.from + (region.k[0] + c) * k.step;
            const near = Math.round(at);
            out[(a * nj + b) * nk + c] = Math.abs(at - near) < 1e-9 ? trace[near] : sincAt(trace, 0, mk, at);
          }
        }
      return { [output]: out };
    },
  };
}

const whole = (axis: { count: number }) => ({ from: 0, step: 1, count: axis.count });
const seismic = { kind: 'volume', title: 'Seismic' } as const;

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
    i: range(volume.binGrid.inline, p.firstInline, p.lastInline),
    j: range(volume.binGrid.crossline, p.firstCrossline, p.lastCrossline),
    k: range(volume.vertical, p.from, p.to),
  };
  if (pick.i.count < 1 || pick.j.count < 1 || pick.k.count < 2)
    throw new LithagonError('params', `Nothing of ${volume.name} lies in that range.`, {
      object: volume.name,
      fix: 'Choose lines and times within the volume. Nothing was changed.',
    });
  return pick;
}

export const crop = defineStep({
  id: 'data.crop',
  purpose: 'Extent',
  version: 1,
  stage: 'data',
  title: 'Crop',
  summary: 'A part of a volume: some of its lines, between two times or depths.',
  formula: 'd′ = d inside the chosen lines and times; nothing outside.',
  avoid: 'Before a step that looks around itself: what was cut off is missing at the new edges.',
  source: 'Samples as they are (SEG-Y rev 2.0, 2017, for the numbering of lines)',
  reach: 'trace',
  inputs: { seismic },
  params: cropParams,
  outputs: { part: { kind: 'volume', title: 'Part' } },
  local: repicked('part', cropOf),
});

const every = (title: string, description: string) =>
  number({ title, description }, { min: 1, max: 20, whole: true, initial: 2 });
const decimateParams = z.object({
  inlines: every('Every … inline', '2 keeps every second one.'),
  crosslines: every('Every … crossline', '2 keeps every second one.'),
});

export const decimate = defineStep({
  id: 'data.decimate',
  purpose: 'Extent',
  version: 1,
  stage: 'data',
  title: 'Decimate',
  summary: 'Every so many inlines and crosslines, for a quick look at a large survey.',
  formula: 'd′(i, j) = d(n·i, m·j): every nth line is kept, the others are left out.',
  avoid: 'Where steep dips are alias-free only on the full grid: spacing must stay below v / (4·f·sin θ).',
  source: 'Samples as they are (SEG-Y rev 2.0, 2017, for the numbering of lines)',
  reach: 'trace',
  inputs: { seismic },
  params: decimateParams,
  outputs: { part: { kind: 'volume', title: 'Decimated' } },
  local: repicked('part', ({ binGrid: { inline, crossline }, vertical }, p: z.infer<typeof decimateParams>) => ({
    i: { from: 0, step: p.inlines, count: Math.ceil(inline.count / p.inlines) },
    j: { from: 0, step: p.crosslines, count: Math.ceil(crossline.count / p.crosslines) },
    k: whole(vertical),
  })),
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
  purpose: 'Extent',
  version: 1,
  stage: 'data',
  title: 'Resample',
  summary: 'Traces at another sample interval, by a windowed sinc.',
  formula: 'd′(t) = Σ d(kΔ)·sinc((t − kΔ)/Δ), after a low-pass below the new Nyquist frequency, 1/(2Δ′).',
  avoid: 'To gain resolution: a finer step adds samples, not frequencies.',
  source: 'Kaiser & Schafer (1980), IEEE Trans. ASSP 28, 105–107',
  reach: 'trace',
  inputs: { seismic },
  params: resampleParams,
  outputs: { resampled: { kind: 'volume', title: 'Resampled' } },
  local: repicked('resampled', ({ binGrid, vertical }, p: z.infer<typeof resampleParams>) => {
    const ratio = p.step / vertical.step;
    return {
      i: whole(binGrid.inline),
      j: whole(binGrid.crossline),
      k: { from: 0, step: ratio, count: Math.floor((vertical.count - 1) / ratio + 1e-9) + 1 },
    };
  }),
});
