import { type FrequencySpec, frequencyAttribute } from '../attributes/frequency.ts';
import { type Spectra, spectraCollector } from '../attributes/spectrum.ts';
import { toMap } from '../earth/binGrid.ts';
import { LithagonError } from '../earth/errors.ts';
import type { Horizon, Polygon, Volume } from '../earth/objects.ts';
import { insideRings } from '../numerics/rings.ts';
import { readAlong, shapeOf } from '../storage/planes.ts';
import type { Store } from '../storage/store.ts';
import { eachWindow, type Windows, windowsOf } from './windows.ts';

/** Which samples of a volume a spectrum is of. */
export interface SpectrumScope {
  /** One line of it alone. */
  line?: { plane: 'inline' | 'crossline'; index: number };
  /** What lies inside an outline alone. */
  outline?: Polygon;
  /** Around a horizon, or from one value of the vertical to another. */
  around: { horizon: Horizon; above: number; below: number } | { from: number; to: number };
}

/** Most windows that are looked at: with more a spectrum grows no smoother. */
const MOST = 24000;

async function windowsIn(store: Store, volume: Volume, { around }: SpectrumScope): Promise<Windows> {
  if ('horizon' in around) {
    if (around.horizon.domain !== volume.domain)
      throw new LithagonError('domain', `${around.horizon.name} and ${volume.name} are not both in one domain.`, {
        object: around.horizon.name,
        fix: 'Choose a horizon in the domain of the volume.',
      });
    return windowsOf(store, around.horizon, undefined, around.above, around.below);
  }
  const [ni, nj] = shapeOf(volume);
  const { first, step, count } = volume.vertical;
  const from = Math.max(first, around.from);
  const to = Math.min(first + (count - 1) * step, around.to);
  return {
    binGrid: volume.binGrid,
    top: new Float32Array(ni * nj).fill(from),
    base: new Float32Array(ni * nj).fill(to),
  };
}

/** Spectra of data and noise in a part of a volume; what is shared with the trace beside, along the inline, is signal. */
export async function spectraOf(
  store: Store,
  volume: Volume,
  scope: SpectrumScope,
  work: { signal?: AbortSignal; progress?(part: number): void } = {},
): Promise<Spectra> {
  const windows = await windowsIn(store, volume, scope);
  const { binGrid, top, base } = windows;
  const columns = binGrid.crossline.count;
  const inside = scope.outline && insideRings(scope.outline.rings);
  const { line } = scope;
  let kept = 0;
  for (let n = 0; n < top.length; n++) {
    const [i, j] = [Math.floor(n / columns), n % columns];
    const out =
      (line && (line.plane === 'inline' ? i : j) !== line.index) || (inside && !inside(...toMap(binGrid, i, j)));
    if (out) top[n] = Number.NaN;
    else if (!Number.isNaN(top[n]) && base[n] > top[n]) kept++;
  }
  // whole inlines are left out, so that what is kept has neighbours
  const every = Math.ceil(kept / MOST);
  if (every > 1 && !line)
    for (let n = 0; n < top.length; n++) if (Math.floor(n / columns) % every > 0) top[n] = Number.NaN;
  let longest = 0;
  for (let n = 0; n < top.length; n++)
    if (base[n] > top[n]) longest = Math.max(longest, Math.floor((base[n] - top[n]) / volume.vertical.step) + 1);
  const collect = spectraCollector(volume.vertical.step, longest);
  let last = Number.NEGATIVE_INFINITY;
  const near = line?.plane === 'crossline' ? columns : 1;
  await eachWindow(
    store,
    volume,
    windows,
    (n, samples) => {
      // the last bin of a line lies beside none of the next
      collect.add(samples, n - last === near && (near > 1 || n % columns > 0));
      last = n;
    },
    work,
  );
  const spectra = collect.finish();
  if (spectra.traces === 0)
    throw new LithagonError('empty', `No trace of ${volume.name} has all samples of that window.`, {
      object: volume.name,
      fix: 'Move the window, or choose another part.',
    });
  return spectra;
}

/** Magnitudes of a trace at frequencies, `[frequency][sample]`; NaN beside the volume. */
export async function frequencyGather(
  store: Store,
  volume: Volume,
  place: [number, number],
  hz: number[],
  spec: FrequencySpec,
): Promise<Float32Array> {
  const { count, step } = volume.vertical;
  const trace = await readAlong(store, volume, [place, place]);
  const one = trace.subarray(0, count);
  const out = new Float32Array(hz.length * count);
  for (const [n, f] of hz.entries()) out.set(frequencyAttribute(one, count, step, [f], spec, 'magnitude'), n * count);
  return out;
}
