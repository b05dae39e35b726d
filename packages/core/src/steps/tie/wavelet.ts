import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import { readInlines, shapeOf } from '../../storage/planes.ts';
import { butterworth, klauder, ormsby, ricker, rotate, statisticalWavelet } from '../../tie/wavelet.ts';
import { choice, defineStep, number } from '../define.ts';

const params = z.object({
  method: choice(
    { title: 'Kind', description: 'From the traces’ own spectrum, or by formula.' },
    ['statistical', 'Ricker', 'Ormsby', 'Butterworth', 'Klauder'],
    'statistical',
  ),
  peakHz: number(
    { title: 'Peak frequency', description: 'Of a Ricker wavelet.', unit: 'Hz' },
    { min: 5, max: 100, step: 1, initial: 28 },
  ),
  lowStopHz: number(
    { title: 'Low stop', description: 'Of an Ormsby wavelet: nothing below.', unit: 'Hz' },
    { min: 0, max: 60, step: 0.5, initial: 4 },
  ),
  lowHz: number(
    {
      title: 'Low corner',
      description: 'Ormsby: all above; Butterworth: half power; Klauder: where the sweep begins.',
      unit: 'Hz',
    },
    { min: 0.5, max: 80, step: 0.5, initial: 9 },
  ),
  highHz: number(
    {
      title: 'High corner',
      description: 'Ormsby: all below; Butterworth: half power; Klauder: where the sweep ends.',
      unit: 'Hz',
    },
    { min: 5, max: 200, step: 1, initial: 45 },
  ),
  highStopHz: number(
    { title: 'High stop', description: 'Of an Ormsby wavelet: nothing above.', unit: 'Hz' },
    { min: 6, max: 250, step: 1, initial: 62 },
  ),
  slopeDb: number(
    { title: 'Slopes', description: 'Of a Butterworth wavelet, both sides.', unit: 'dB/octave' },
    { min: 6, max: 96, step: 6, initial: 18 },
  ),
  sweepS: number(
    { title: 'Sweep', description: 'Length of a Klauder wavelet’s sweep.', unit: 's' },
    { min: 1, max: 60, step: 1, initial: 8 },
  ),
  phaseDeg: number(
    { title: 'Phase', description: 'Constant phase given to the wavelet.', unit: '°' },
    { min: -180, max: 180, step: 1, initial: 0 },
  ),
  lengthMs: number(
    { title: 'Length', description: 'Whole length of the wavelet.', unit: 'ms' },
    { min: 40, max: 400, step: 4, initial: 120 },
  ),
  fromMs: number(
    { title: 'From', description: 'Top of the window that the spectrum is taken from.', unit: 'ms' },
    { min: 0, max: 10000, step: 10, initial: 700 },
  ),
  toMs: number(
    { title: 'To', description: 'Bottom of that window.', unit: 'ms' },
    { min: 0, max: 10000, step: 10, initial: 1300 },
  ),
});

export const wavelet = defineStep({
  id: 'tie.wavelet',
  purpose: 'Wavelets',
  version: 1,
  stage: 'tie',
  title: 'Make a wavelet',
  summary: 'From the spectrum of the seismic in a window, at a phase of your choice, or by formula.',
  formula: 'w(t) = (1 − 2π²f²t²)·e^{−π²f²t²} (Ricker), or a band between four corners.',
  avoid: 'As the wavelet of the data: it is a beginning until one is estimated.',
  source:
    'Blackman & Tukey (1958), The Measurement of Power Spectra; Ricker (1953), Geophysics 18, 10–40; Ryan (1994), CSEG Recorder 19(7), 8–9; Klauder et al. (1960)',
  reach: 'global',
  inputs: { seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude'], domain: 'twt' } },
  params,
  outputs: { wavelet: { kind: 'wavelet', title: 'Wavelet' } },
  async run({ inputs, params: p, store, progress, signal }) {
    const { seismic } = inputs;
    if (p.toMs - p.fromMs < p.lengthMs)
      throw new LithagonError('wavelet', `A window of ${p.toMs - p.fromMs} ms is shorter than the wavelet.`, {
        object: seismic.name,
        fix: 'Widen the window or shorten the wavelet.',
      });
    const traces: Float32Array[] = [];
    if (p.method === 'statistical') {
      const [ni, nj, nk] = shapeOf(seismic);
      const { first, step } = seismic.vertical;
      const k0 = Math.max(0, Math.round((p.fromMs - first) / step));
      const k1 = Math.min(nk, Math.round((p.toMs - first) / step));
      const every = Math.max(1, Math.floor(ni / 8));
      for (let i = Math.floor(every / 2); i < ni; i += every) {
        if (signal?.aborted) break;
        const line = await readInlines(store, seismic, i, i + 1);
        for (let j = 0; j < nj; j += 4) {
          const trace = line.slice(j * nk + k0, j * nk + k1);
          if (!trace.every((v) => Number.isNaN(v) || v === 0)) traces.push(trace);
        }
        progress(i / ni);
      }
      if (traces.length === 0)
        throw new LithagonError('wavelet', `${seismic.name} has no live trace between those times.`, {
          object: seismic.name,
          fix: 'Choose another window.',
        });
    }
    if (p.method === 'Ormsby' && !(p.lowStopHz < p.lowHz && p.lowHz <= p.highHz && p.highHz < p.highStopHz))
      throw new LithagonError('wavelet', 'The four corners of an Ormsby wavelet rise from low stop to high stop.', {
        fix: 'Put them in order. Nothing was made.',
      });
    const formula = {
      Ricker: () => ricker(p.peakHz, p.lengthMs),
      Ormsby: () => ormsby([p.lowStopHz, p.lowHz, p.highHz, p.highStopHz], p.lengthMs),
      Butterworth: () => butterworth(p.lowHz, p.slopeDb, p.highHz, p.slopeDb, p.lengthMs),
      Klauder: () => klauder(p.lowHz, p.highHz, p.sweepS, p.lengthMs),
      statistical: () => statisticalWavelet(traces, seismic.vertical.step, p.lengthMs),
    };
    const zero = formula[p.method]();
    const made = p.phaseDeg === 0 ? zero : rotate(zero, p.phaseDeg);
    return {
      wavelet: {
        kind: 'wavelet',
        stepMs: made.stepMs,
        firstMs: made.firstMs,
        samples: Array.from(made.samples),
        method: p.method,
        phaseDeg: p.phaseDeg,
      },
    };
  },
});
