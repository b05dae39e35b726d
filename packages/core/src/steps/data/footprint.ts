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
import type { LocalStep } from '../../engine/local.ts';
import { readPlane, shapeOf } from '../../storage/planes.ts';
import type { Store } from '../../storage/store.ts';
import { defineStep, number } from '../define.ts';

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

/** Mean amplitude of wavenumbers over slices, which all count alike however strong they are. */
async function meanWavenumbers(store: Store, volume: Volume, signal?: AbortSignal): Promise<Wavenumbers | null> {
  const [ni, nj, nk] = shapeOf(volume);
  let mean: Wavenumbers | null = null;
  const every = Math.max(1, Math.floor(nk / LOOKED_AT));
  for (let k = Math.floor(every / 2); k < nk; k += every) {
    stopIf(signal);
    const own = wavenumbersOf(await readPlane(store, volume, 'slice', k), ni, nj);
    const total = own.amplitude.reduce((a, b) => a + b, 1e-30);
    mean ??= { ...own, amplitude: new Float64Array(own.amplitude.length) };
    for (let n = 0; n < own.amplitude.length; n++) mean.amplitude[n] += own.amplitude[n] / total;
  }
  return mean;
}

interface Ready {
  waves: Wave[];
  filter: ReturnType<typeof footprintFilter>;
}

const local: LocalStep<z.infer<typeof params>, Wavenumbers | null, Ready> = {
  volumes: ['seismic'],
  outputs: { clean: {}, removed: {} },
  // whole slices are filtered, each by itself
  halo: () => ({ inline: Number.POSITIVE_INFINITY, crossline: Number.POSITIVE_INFINITY, sample: 0 }),
  prepare: ({ seismic }, { store, signal }) => meanWavenumbers(store, seismic as Volume, signal),
  ready(mean, p, { seismic }) {
    const [ni, nj] = shapeOf(seismic);
    const waves = mean ? footprintWaves(mean, [ni, nj], p) : [];
    return { waves, filter: footprintFilter(ni, nj, waves) };
  },
  evaluate({ seismic: { data, size } }, _, { filter }) {
    const [ni, nj, nk] = size;
    const out = { clean: new Float32Array(data.length), removed: new Float32Array(data.length) };
    const slice = new Float32Array(ni * nj);
    for (let k = 0; k < nk; k++) {
      for (let n = 0; n < slice.length; n++) slice[n] = data[n * nk + k];
      const { clean, removed } = filter(slice);
      for (let n = 0; n < slice.length; n++) {
        out.clean[n * nk + k] = clean[n];
        out.removed[n * nk + k] = removed[n];
      }
    }
    return out;
  },
  says({ waves }) {
    if (waves.length === 0) return ['No pattern stands out by that much: nothing was taken out.'];
    const period = ({ alongRows, alongColumns }: Wave) => (1 / Math.hypot(alongRows, alongColumns)).toFixed(1);
    return [
      `${waves.length} ${waves.length === 1 ? 'pattern was' : 'patterns were'} taken out, with periods of ${waves.slice(0, 6).map(period).join(', ')}${waves.length > 6 ? ' …' : ''} bins.`,
    ];
  },
};

export const footprint = defineStep({
  id: 'data.footprint',
  purpose: 'Amplitudes',
  version: 2,
  stage: 'data',
  title: 'Acquisition footprint',
  summary:
    'Takes out patterns across slices that stand out in one after the other; what was taken out is kept beside it.',
  formula: 'Of each slice the periodic part along lines is found in the wavenumber spectrum and taken out.',
  avoid: 'Where the spacing of geology is that of the acquisition: channels across lines may go with it.',
  source: 'Marfurt, Scheet, Sharp & Harper (1998), Geophysics 63, 1024–1035',
  reach: 'slice',
  inputs: { seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude', 'attribute', 'variance'] } },
  params,
  outputs: {
    clean: { kind: 'volume', title: 'Without footprint' },
    removed: { kind: 'volume', title: 'Footprint' },
  },
  local,
});
