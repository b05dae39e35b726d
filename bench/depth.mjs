// A volume to depth through three layers, against nearest-sample lookup.
import { sincAt } from '../packages/core/dist/numerics/sinc.js';
import { columnOf, timeOfDepth } from '../packages/core/dist/velocity/layered.js';
import { noise, timed } from './support.mjs';

const [TRACES, SAMPLES, DEPTHS] = [8000, 451, 451];

export async function measure() {
  const random = noise(9);
  const data = Float32Array.from({ length: TRACES * SAMPLES }, random);
  const out = new Float32Array(TRACES * DEPTHS);
  const laws = [
    { v0: 1500, k: 0.8 },
    { v0: 2400, k: 0.3 },
    { v0: 2600, k: 0.2 },
  ];
  const stretch = (read) => () => {
    for (let t = 0; t < TRACES; t++) {
      const column = columnOf(90, 1490, [600, 950, 1000], laws);
      for (let k = 0; k < DEPTHS; k++) out[t * DEPTHS + k] = read(t * SAMPLES, timeOfDepth(column, 4 * k) / 4);
    }
  };
  const sinc = await timed(
    stretch((o, at) => sincAt(data, o, SAMPLES, at)),
    3,
  );
  const nearest = await timed(
    stretch((o, at) => data[o + Math.min(SAMPLES - 1, Math.round(at))]),
    3,
  );
  return [
    {
      what: 'volume to depth, windowed sinc of 16 points',
      value: (TRACES * DEPTHS) / 1e6 / sinc,
      unit: 'million samples/s',
      ratio: nearest / sinc,
      against: 'nearest-sample lookup',
    },
  ];
}
