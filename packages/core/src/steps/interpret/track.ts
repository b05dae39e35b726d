import { z } from 'zod';
import { type BinGrid, toIndex, toMap } from '../../earth/binGrid.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Volume } from '../../earth/objects.ts';
import { makeBarrier } from '../../faults/barrier.ts';
import { meshOfSticks } from '../../faults/surface.ts';
import { EVENT_KINDS, snap, type Traces } from '../../horizons/event.ts';
import { type Seed, type TrackOptions, trackEvent } from '../../horizons/track.ts';
import { extentOf } from '../../numerics/extent.ts';
import { insideRings } from '../../numerics/rings.ts';
import { during } from '../../numerics/stop.ts';
import { topInTime } from '../../project/wells/seeds.ts';
import { writeWhole } from '../../storage/arrays.ts';
import { readInlines, shapeOf, slabOf } from '../../storage/planes.ts';
import type { Store } from '../../storage/store.ts';
import { choice, defineStep, number, text, wellsInput } from '../define.ts';

const params = z.object({
  top: text(
    { title: 'Top', description: 'The top, as the wells name it, from which seeds are taken.', names: 'top' },
    '',
  ),
  event: choice(
    { title: 'Event', description: 'What of the waveform is followed; + is harder where the volume says so.' },
    [...EVENT_KINDS],
    'trough',
  ),
  snapMs: number(
    { title: 'Seeds may move', description: 'How far from a well’s time the event may lie.', unit: 'ms' },
    { min: 0, max: 60, step: 2, initial: 16 },
  ),
  windowMs: number(
    {
      title: 'Waveform window',
      description: 'Height of the waveform that is compared from trace to trace.',
      unit: 'ms',
    },
    { min: 16, max: 200, step: 4, initial: 56 },
  ),
  leastMatch: number(
    { title: 'Minimum match', description: 'Correlation below which the front stops.' },
    { min: 0, max: 1, step: 0.01, initial: 0.6 },
  ),
  jumpMs: number(
    {
      title: 'Maximum jump',
      description: 'Departure from the local dip allowed from one trace to the next.',
      unit: 'ms',
    },
    { min: 1, max: 30, step: 1, initial: 7 },
  ),
  stack: number(
    { title: 'Stack', description: 'Traces on each side stacked along dip when the time is read.', unit: 'traces' },
    { min: 0, max: 4, whole: true, initial: 2 },
  ),
  leastLike: number(
    {
      title: 'Minimum likeness to seeds',
      description:
        'Where waveform and strength together are less like those of the seeds, the event is taken for lost.',
    },
    { min: 0, max: 0.9, step: 0.05, initial: 0.2 },
  ),
  reachMs: number(
    { title: 'Reach', description: 'How far above and below its seeds the horizon is looked for.', unit: 'ms' },
    { min: 50, max: 1500, step: 50, initial: 350 },
  ),
});

/** All traces of a volume between two samples, in memory. */
async function tracesBetween(
  store: Store,
  volume: Volume,
  k0: number,
  k1: number,
  signal?: AbortSignal,
): Promise<Traces> {
  const [ni, nj, nk] = shapeOf(volume);
  const samples = k1 - k0;
  const data = new Float32Array(ni * nj * samples);
  const slab = slabOf(volume);
  for (let i = 0; i < ni; i += slab) {
    stopIf(signal);
    const last = Math.min(ni, i + slab);
    const lines = await readInlines(store, volume, i, last);
    for (let n = 0; n < (last - i) * nj; n++)
      data.set(lines.subarray(n * nk + k0, n * nk + k1), (i * nj + n) * samples);
  }
  return { data, samples, first: volume.vertical.first + k0 * volume.vertical.step, step: volume.vertical.step };
}

/** Which erased ring each bin lies in, from 1; 0 outside all. */
function partsOf(binGrid: BinGrid, rings: [number, number][][]): Uint8Array {
  const columns = binGrid.crossline.count;
  const out = new Uint8Array(binGrid.inline.count * columns);
  rings.forEach((ring, n) => {
    const inside = insideRings([ring]);
    for (let q = 0; q < out.length; q++)
      if (inside(...toMap(binGrid, Math.floor(q / columns), q % columns))) out[q] = 1 + (n % 255);
  });
  return out;
}

export const track = defineStep({
  id: 'interpret.track',
  version: 6,
  stage: 'interpret',
  title: 'Track through the volume',
  summary:
    'Follows one event from picks and the wells’ tops, surest way first, stopping at faults; keeps how sure it is.',
  formula:
    'The surest neighbour first: cost 1 − c, c the correlation of waveforms; stops at faults and below the least match.',
  avoid: 'Across cycle skips: look at the confidence map before closing.',
  source:
    'Least-cost fronts, Dijkstra (1959), Numerische Mathematik 1, 269–271, on the waveform match of Neidell & Taner (1971), Geophysics 36, 482–497',
  reach: 'global',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude'], domain: 'twt' },
    picks: { kind: 'picks', title: 'Picks', domain: 'twt', optional: true },
    wells: wellsInput(['directional surveys', 'tops', 'checkshots', 'time-depth relation'], { optional: true }),
    faults: { kind: 'fault', title: 'Stops at', many: true, optional: true, domain: 'twt' },
  },
  params,
  outputs: { horizon: { kind: 'horizon', title: 'Horizon' } },
  async run({ inputs, around, params: p, store, idFor, signal, progress, preview, warn }) {
    const { seismic, wells, faults, picks } = inputs;
    const { binGrid } = seismic;
    const met = wells.map((well) => ({ well, at: topInTime(around, well, p.top, seismic) }));
    const found = met.flatMap((m) => (m.at ? [m.at] : []));
    for (const m of met)
      if (!m.at) warn(`${m.well.name} gave no seed: it has no ${p.top}, no time there, or lies outside the survey.`);
    const picked = (picks?.points ?? []).flatMap(([x, y, twt]) => {
      const [i, j] = toIndex(binGrid, x, y).map(Math.round);
      const inside = i >= 0 && j >= 0 && i < binGrid.inline.count && j < binGrid.crossline.count;
      return inside ? [{ i, j, twt }] : [];
    });
    if (found.length + picked.length === 0)
      throw new LithagonError(
        'seeds',
        `${p.top ? `No well has a top “${p.top}” with a time inside ${seismic.name}` : 'No top was named'}, and nothing was picked there, so there is nothing to begin from.`,
        {
          object: p.top,
          fix: 'Pick the event on a section, check the name of the top, or load checkshots for a well that has it.',
        },
      );
    const { first, step, count } = seismic.vertical;
    const sampleOf = (ms: number) => Math.min(count, Math.max(0, Math.round((ms - first) / step)));
    const [earliest, latest] = extentOf([...found, ...picked].map((f) => f.twt));
    const k0 = sampleOf(earliest - p.reachMs);
    const k1 = sampleOf(latest + p.reachMs);
    const traces = await tracesBetween(store, seismic, k0, k1, signal);
    progress(0.3);
    const [ni, nj] = shapeOf(seismic);
    // picks on an event that can be tracked say which; those drawn free-hand leave it to the parameter
    const event = (picked.length > 0 && EVENT_KINDS.find((kind) => kind === picks?.event)) || p.event;
    // a pick was snapped when it was made
    const parts = picks && picks.erased.length > 0 ? partsOf(binGrid, picks.erased) : undefined;
    const seeds: Seed[] = picked.map(({ i, j, twt }) => ({ i, j, time: twt }));
    for (const f of found) {
      if (parts && parts[f.i * nj + f.j] > 0) {
        warn(`${f.well} gave no seed: it lies in a part that was erased.`);
        continue;
      }
      const time = snap(traces, f.i * nj + f.j, f.twt, event, p.snapMs);
      if (Number.isNaN(time))
        warn(`${f.well}: no ${event} within ${p.snapMs} ms of ${f.twt.toFixed(1)} ms; it gave no seed.`);
      else seeds.push({ i: f.i, j: f.j, time });
    }
    if (seeds.length === 0)
      throw new LithagonError('seeds', `No ${event} lies within ${p.snapMs} ms of “${p.top}” in any well.`, {
        object: p.top,
        fix: 'Choose another event, or let seeds move farther.',
      });
    const last = first + step * (count - 1);
    const barrier =
      faults.length > 0
        ? during(signal, () =>
            makeBarrier(
              seismic.binGrid,
              faults.map((f) => meshOfSticks(f.sticks)),
              first,
              last,
              20,
            ),
          )
        : undefined;
    const how: TrackOptions = {
      kind: event,
      halfWindow: p.windowMs / 2,
      leastMatch: p.leastMatch,
      largestJump: p.jumpMs,
      stack: p.stack,
      leastLike: p.leastLike,
      barrier,
      parts,
      signal,
      onProgress: (n, times) => {
        progress(0.3 + (0.6 * n) / (ni * nj));
        preview({ binGrid, values: times() });
      },
    };
    const result = during(signal, () => trackEvent(traces, ni, nj, seeds, how));
    stopIf(signal);
    if (result.lost > 0)
      warn(
        `${result.lost} traces were let go: what was followed there is too unlike the seeds, and the event is likely lost.`,
      );
    let low = Number.POSITIVE_INFINITY;
    let high = Number.NEGATIVE_INFINITY;
    for (const t of result.times) {
      if (t < low) low = t;
      if (t > high) high = t;
    }
    const id = idFor('horizon');
    return {
      horizon: {
        kind: 'horizon',
        domain: 'twt',
        binGrid: seismic.binGrid,
        values: await writeWhole(store, `${id}/values`, [ni, nj], result.times, ['inline', 'crossline']),
        confidence: await writeWhole(store, `${id}/confidence`, [ni, nj], result.confidence, ['inline', 'crossline']),
        range: [low, high],
        filled: result.tracked / (ni * nj),
      },
    };
  },
});
