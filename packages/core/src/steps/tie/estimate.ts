import { z } from 'zod';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { EarthObject, Volume, Well } from '../../earth/objects.ts';
import { during } from '../../numerics/stop.ts';
import { topInDepth } from '../../project/layers.ts';
import { relationOf } from '../../project/wells/seeds.ts';
import { alongPath, panelAlong, tieWellOf } from '../../project/wells/tieWell.ts';
import { REFLECTION } from '../../rocks/reflect.ts';
import type { Store } from '../../storage/store.ts';
import { tieLogs } from '../../tie/chain.ts';
import { elasticInTime } from '../../tie/elastic.ts';
import { estimateWavelet, reflectivityAt, type WellWindow } from '../../tie/estimate.ts';
import { twtOfDepth } from '../../wells/timeDepth.ts';
import { defineStep, number, text, wellsInput } from '../define.ts';

const params = z.object({
  top: text({ title: 'Around the top', description: 'The windows lie around this top.', names: 'top' }, ''),
  windowMs: number(
    { title: 'Window', description: 'Whole height of each window.', unit: 'ms' },
    { min: 200, max: 3000, step: 20, initial: 600 },
  ),
  shortestMs: number(
    { title: 'Shortest', description: 'Shortest whole length tried.', unit: 'ms' },
    { min: 40, max: 300, step: 4, initial: 80 },
  ),
  longestMs: number(
    { title: 'Longest', description: 'Longest whole length tried.', unit: 'ms' },
    { min: 60, max: 400, step: 4, initial: 160 },
  ),
  angleDeg: number(
    {
      title: 'Angle',
      description: 'Middle angle of the stack; beyond zero reflections are Zoeppritz’s and shear is needed.',
      unit: '°',
    },
    { min: 0, max: 50, step: 1, initial: 0 },
  ),
});

/** Reflectivity and trace of one well around the top, or why it has none. */
async function pieceOf(
  store: Store,
  around: EarthObject[],
  seismic: Volume,
  well: Well,
  p: z.infer<typeof params>,
): Promise<{ window: WellWindow; place: { well: string; i: number; j: number } } | string> {
  const relation = relationOf(around, well.name);
  const at = topInDepth(around, well, p.top);
  if (!relation || !at)
    return `${well.name} has no ${relation ? `top ${p.top ? `“${p.top}”` : 'that was named'}` : 'tie or checkshots'}`;
  // a tied well needs no checkshots here: its own relation stands for them
  const data = await tieWellOf(store, around, well, well);
  const logs = tieLogs(data);
  if (!logs) return `The sonic of ${well.name} is too short`;
  const shear = p.angleDeg > 0 ? logs.shear : null;
  if (p.angleDeg > 0 && !shear) return `${well.name} has no shear log, which reflections at ${p.angleDeg}° need`;
  const twt = logs.slowness.tvdss.map((z) => twtOfDepth(relation, z));
  const elastic = elasticInTime(twt, logs.slowness.tvdss, logs.slowness.secondsPerMetre, logs.density, shear);
  const { vp, vs, density, reflectivity } = elastic;
  const rock = (b: number) => ({ vp: vp[b], vs: vs ? vs[b] : 0, density: density[b] });
  const values = vs
    ? reflectivity.map((_, b) => (b > 0 ? REFLECTION['exact Zoeppritz'](rock(b - 1), rock(b), p.angleDeg) : 0))
    : reflectivity;
  const panel = await panelAlong(store, seismic, data.path, relation, 0);
  const trace = alongPath(panel);
  const middle = twtOfDepth(relation, at.tvdss);
  const from = Math.max(middle - p.windowMs / 2, elastic.firstMs, trace.firstMs);
  const to = Math.min(
    middle + p.windowMs / 2,
    elastic.firstMs + elastic.stepMs * (values.length - 1),
    trace.firstMs + trace.stepMs * (trace.values.length - 1),
  );
  const first = Math.ceil((from - trace.firstMs) / trace.stepMs);
  const count = Math.floor((to - trace.firstMs) / trace.stepMs) - first + 1;
  if (count < 30) return `${well.name} has logs over less than 30 samples of the window`;
  const fine = { firstMs: elastic.firstMs, stepMs: elastic.stepMs, values };
  const sign = seismic.polarity === 'harder-negative' ? -1 : 1;
  const k = Math.min(panel.samples - 1, Math.max(0, Math.round((middle - panel.firstMs) / panel.stepMs)));
  return {
    window: {
      well: well.name,
      stepMs: trace.stepMs,
      reflectivity: reflectivityAt(fine, trace.firstMs + first * trace.stepMs, trace.stepMs, count),
      trace: trace.values.slice(first, first + count).map((v) => v * sign),
    },
    place: { well: well.name, i: Math.round(panel.i[k]), j: Math.round(panel.j[k]) },
  };
}

export const estimate = defineStep({
  id: 'tie.estimate',
  purpose: 'Wavelets',
  version: 1,
  stage: 'tie',
  title: 'Estimate a wavelet',
  summary:
    'By least squares from the tied logs of one well, or of several jointly; its length is what predicts left-out parts best.',
  formula: 'W(f) = ⟨S·R*⟩ / (⟨R·R*⟩ + ε): least squares between seismic and reflectivity.',
  avoid: 'Over windows shorter than about three times the wavelet, or on a bad tie: its errors go into the phase.',
  source: 'White & Simm (2003), First Break 21(10), 75–83; Walden & White (1998), Geophysics 63, 1–14',
  reach: 'global',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude'], domain: 'twt' },
    wells: wellsInput(['directional surveys', 'logs', 'checkshots', 'tops', 'time-depth relation']),
  },
  params,
  outputs: { wavelet: { kind: 'wavelet', title: 'Wavelet' } },
  async run({ inputs, around, params: p, store, signal, progress, warn }) {
    const { seismic, wells } = inputs;
    const windows: WellWindow[] = [];
    const places: { well: string; i: number; j: number }[] = [];
    for (const [n, well] of wells.entries()) {
      stopIf(signal);
      const found = await pieceOf(store, around, seismic, well, p).catch((cause: unknown) => {
        if (cause instanceof LithagonError) return cause.message;
        throw cause;
      });
      if (typeof found === 'string') warn(`${found.replace(/\.$/, '')}; it was left out.`);
      else {
        windows.push(found.window);
        places.push(found.place);
      }
      progress((0.8 * (n + 1)) / wells.length);
    }
    places.forEach((a, n) => {
      for (const b of places.slice(n + 1))
        if (a.i === b.i && a.j === b.j)
          warn(`${a.well} and ${b.well} stand on one trace at ${p.top}; they are no independent witnesses.`);
    });
    const lengths = Array.from(
      { length: 5 },
      (_, n) => Math.round((p.shortestMs + ((p.longestMs - p.shortestMs) * n) / 4) / 8) * 8,
    );
    const found = windows.length > 0 ? during(signal, () => estimateWavelet(windows, [...new Set(lengths)])) : null;
    if (!found)
      throw new LithagonError(
        'wavelet',
        'No well has enough logs and seismic around the top for a wavelet of that length.',
        {
          object: seismic.name,
          fix: 'Widen the window, allow shorter wavelets or add wells. Nothing was made.',
        },
      );
    if (found.predictability < 0.4)
      warn(`It predicts only ${(100 * found.predictability).toFixed(0)} % of the traces’ energy.`);
    if (found.lengthMs >= Math.max(...lengths))
      warn('The longest length that was tried predicts best; a longer one may do better still.');
    return {
      wavelet: {
        kind: 'wavelet',
        stepMs: found.wavelet.stepMs,
        firstMs: found.wavelet.firstMs,
        samples: Array.from(found.wavelet.samples),
        method: 'least squares',
        phaseDeg: 0,
        wells: windows.map((w) => w.well),
        ...(p.angleDeg > 0 ? { angleDeg: p.angleDeg } : {}),
        estimate: {
          halfWidth: Array.from(found.halfWidth),
          predictability: found.predictability,
          band: found.band,
          wells: windows.map((w) => w.well),
          tried: found.tried,
        },
      },
    };
  },
});
