// Tracking 32 000 traces from one seed, against a plain loop that finds the nearest event in every trace.
import { snap } from '@lithagon/core';
import { trackEvent } from '../packages/core/dist/horizons/track.js';
import { noise, timed } from './support.mjs';

const [ROWS, COLUMNS, SAMPLES, STEP] = [160, 200, 180, 4];

export async function measure() {
  const random = noise(7);
  const surface = (i, j) => 360 - 60 * Math.exp(-((i - 80) ** 2 + (j - 90) ** 2) / 4000) + 0.2 * j;
  const ricker = (ms) => {
    const q = ((Math.PI * 28 * ms) / 1000) ** 2;
    return (1 - 2 * q) * Math.exp(-q);
  };
  const data = new Float32Array(ROWS * COLUMNS * SAMPLES);
  for (let i = 0; i < ROWS; i++)
    for (let j = 0; j < COLUMNS; j++)
      for (let k = 0; k < SAMPLES; k++)
        data[(i * COLUMNS + j) * SAMPLES + k] =
          ricker(4 * k - surface(i, j)) - 0.8 * ricker(4 * k - surface(i, j) - 40) + 0.2 * random();
  const traces = { data, samples: SAMPLES, first: 0, step: STEP };
  const options = { kind: 'peak', halfWindow: 28, leastMatch: 0.6, largestJump: 7, stack: 2 };
  let tracked = 0;
  const seconds = await timed(() => {
    tracked = trackEvent(traces, ROWS, COLUMNS, [{ i: 10, j: 10, time: surface(10, 10) }], options).tracked;
  }, 3);
  const reference = await timed(() => {
    for (let t = 0; t < ROWS * COLUMNS; t++) snap(traces, t, surface(Math.floor(t / COLUMNS), t % COLUMNS), 'peak', 16);
  }, 3);
  return [
    {
      what: `tracking, ${tracked} of ${ROWS * COLUMNS} traces`,
      value: tracked / seconds,
      unit: 'traces/s',
      ratio: reference / seconds,
      against: 'snapping every trace alone',
    },
    { what: 'tracking 32 000 traces', value: (32000 * seconds) / tracked, unit: 's' },
  ];
}
