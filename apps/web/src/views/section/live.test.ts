import { defineStep, forgetStep, type Quantity, registerStep, type Volume } from '@lithagon/core';
import { afterEach, describe, expect, test } from 'vitest';
import { z } from 'zod';
import type { FieldLook } from '../raster/field';
import { liveLook, liveText } from './live';

const own: FieldLook = { map: 'rust–bone–slate', low: -3000, high: 3000, reverse: false };
const volume = { quantity: 'amplitude', unit: '', polarity: 'harder-positive' } as Volume;
const data = (values: number[]) => Float32Array.from({ length: 2000 }, (_, n) => values[n % values.length]);

/** A step whose trial gives a quantity, or one that stays what it was. */
function giving(quantity?: Quantity): string {
  registerStep(
    defineStep({
      id: 'test.giving',
      version: 1,
      stage: 'attributes',
      title: 'Giving',
      summary: '',
      source: '',
      reach: 'local',
      inputs: { seismic: { kind: 'volume', title: 'Seismic' } },
      params: z.object({}),
      outputs: { given: { kind: 'volume', title: 'Given' } },
      local: {
        volumes: ['seismic'],
        outputs: { given: { quantity } },
        halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
        evaluate: ({ seismic }) => ({ given: seismic.data }),
      },
    }),
  );
  return 'test.giving';
}
afterEach(() => forgetStep('test.giving'));

describe('a trial is drawn and named by what it gives', () => {
  test('a part of a whole over all of its scale, with the words for its ends', () => {
    const step = giving('variance');
    expect(liveLook({ step, params: {} }, volume, data([0.1, 0.2]), own)).toMatchObject({
      map: 'ink',
      reverse: true,
      low: 0,
      high: 1,
    });
    expect(liveText({ step, params: {} }, volume)).toBe('trial: variance, 0 alike to 1 unlike');
  });
  test('another quantity in its own colours, to where its samples lie, with its unit, and as nothing that it is not', () => {
    const step = giving('interval velocity');
    const look = liveLook({ step, params: {} }, volume, data([1800, 2400, 3000, 3600]), own);
    expect(look).toMatchObject({ map: 'strata', low: 1800, high: 3600 });
    expect(liveText({ step, params: {} }, volume)).toBe('trial: interval velocity (m/s)');
    // all alike still has two ends
    const flat = liveLook({ step, params: {} }, volume, data([2000]), own);
    expect(flat.high).toBeGreaterThan(flat.low);
  });
  test('what rests on its parameters as these say: classes one by one, angles all round', () => {
    const trace = (kind: string) => ({ step: 'attributes.trace', params: { kind } });
    expect(liveLook(trace('phase'), volume, data([3]), own)).toMatchObject({ map: 'compass', low: -180, high: 180 });
    expect(liveText(trace('frequency'), { ...volume, domain: 'twt' } as Volume)).toBe('trial: frequency (Hz)');
    expect(liveText(trace('nothing of the kind'), volume)).toBe('trial: amplitude, + is harder');
    const classes = { step: 'attributes.plotClass', params: {} };
    expect(liveLook(classes, volume, data([0, 2, 3]), own)).toMatchObject({
      low: -0.5,
      high: 3.5,
      steps: 4,
      whole: true,
    });
  });
  test('what stays what it was in the colours of the volume, to both sides alike', () => {
    const step = giving();
    expect(liveLook({ step, params: {} }, volume, data([-500, 200, 300]), own)).toMatchObject({
      map: own.map,
      low: -500,
      high: 500,
    });
    expect(liveText({ step, params: {} }, volume)).toBe('trial: amplitude, + is harder');
    expect(liveLook({ step, params: {} }, volume, undefined, own)).toMatchObject({ low: own.low, high: own.high });
  });
});
