import { type BinGrid, toMap } from '../earth/binGrid.ts';
import type { EarthObject, Logs, Wavelet } from '../earth/objects.ts';
import { writeWhole } from '../storage/arrays.ts';
import type { Store } from '../storage/store.ts';
import { ricker } from '../tie/wavelet.ts';
import { MADE } from './objects.ts';
import { normal } from './random.ts';

const [FIRST_M, STEP_M, COUNT] = [120, 0.5, 3400];

/** Beds of two metres and more, each a little harder or softer than the rock that grows harder with depth; the same in all wells but for a part. */
export function bedsOf(well: number): Float64Array {
  const [shared, own] = [normal(71), normal(100 + well)];
  const out = new Float64Array(COUNT);
  let [a, b] = [0, 0];
  for (let n = 0; n < COUNT; n++) {
    if (n % 8 === 0) {
      a = 0.6 * a + 0.05 * shared();
      b = 0.6 * b + 0.02 * own();
    }
    out[n] = Math.log(2000 + 0.6 * n * STEP_M) + a + b;
  }
  return out;
}

/**
 * Vertical wells with sonic, shear and density, in which a metre below the sea is a millisecond; a net flag where rock is softer than its
 * neighbourhood; a wavelet of 25 Hz. They stand at bins of a grid.
 */
export async function wellsInTime(store: Store, binGrid: BinGrid, bins: [number, number][]): Promise<EarthObject[]> {
  const out: EarthObject[] = [];
  const base = (id: string, stage: string) => ({ id, name: id, revision: '1', stage, madeBy: MADE });
  for (const [n, [i, j]] of bins.entries()) {
    const well = `W-${n + 1}`;
    const [x, y] = toMap(binGrid, i, j);
    const velocity = bedsOf(n).map(Math.exp);
    const density = velocity.map((v) => 310 * v ** 0.25);
    const curve = async (
      mnemonic: string,
      name: Logs['curves'][number]['class'],
      unit: string,
      value: (k: number) => number,
    ) => {
      const data = Float32Array.from({ length: COUNT }, (_, k) => value(k));
      return {
        mnemonic,
        class: name,
        unit,
        fileUnit: unit,
        description: '',
        data: await writeWhole(store, `${well}-logs/${mnemonic}`, [COUNT], data, ['sample']),
        min: data.reduce((a, b) => Math.min(a, b)),
        max: data.reduce((a, b) => Math.max(a, b)),
        nulls: 0,
      };
    };
    const trend = (k: number) => 2000 + 0.6 * k * STEP_M;
    out.push(
      { ...base(`well-${well}`, 'wells'), kind: 'well', name: well, x, y, kbM: 0, totalMdM: FIRST_M + STEP_M * COUNT },
      {
        ...base(`${well}-logs`, 'wells'),
        kind: 'logs',
        well,
        depth: { firstM: FIRST_M, stepM: STEP_M, count: COUNT },
        curves: [
          await curve('DT', 'sonic', 'us/m', (k) => 1e6 / velocity[k]),
          await curve('DTS', 'shear sonic', 'us/m', (k) => 1e6 / (0.5 * velocity[k])),
          await curve('RHOB', 'density', 'kg/m3', (k) => density[k]),
          await curve('NET', 'net flag', '', (k) => (velocity[k] < 0.99 * trend(k) ? 2 : 0)),
        ],
      },
      {
        ...base(`${well}-tie`, 'tie'),
        kind: 'time-depth relation',
        well,
        pairs: [
          [0, 0],
          [3000, 3000],
        ],
        knees: [],
        shiftMs: 0,
        phaseDeg: 0,
        correlation: 1,
        windowMs: [0, 3000],
      },
    );
  }
  out.push(rickerWavelet('Wavelet', 25, 8000));
  return out;
}

/** A Ricker wavelet of a height, of a stack's angle where it has one. */
export function rickerWavelet(name: string, hz: number, height: number, angleDeg?: number): Wavelet {
  const { stepMs, firstMs, samples } = ricker(hz, 120);
  return {
    id: `wavelet-${name.replaceAll(' ', '-')}`,
    kind: 'wavelet',
    name,
    revision: '1',
    stage: 'tie',
    madeBy: MADE,
    stepMs,
    firstMs,
    samples: Array.from(samples, (v) => v * height),
    method: 'Ricker',
    phaseDeg: 0,
    ...(angleDeg === undefined ? {} : { angleDeg }),
  };
}
