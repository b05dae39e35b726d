import { describe, expect, test } from 'vitest';
import { z } from 'zod';
import type { LithagonError } from '../earth/errors.ts';
import { type AnyStep, defineStep, number, text } from './define.ts';
import { checkParams } from './params.ts';

const step = defineStep({
  id: 'wells.madeUp',
  version: 1,
  stage: 'wells',
  title: 'Made up',
  summary: 'Nothing.',
  source: 'none',
  reach: 'global',
  inputs: {},
  params: z.object({
    heightM: number(
      { title: 'Height', description: 'How high it stands.', unit: 'm' },
      { min: 10, max: 200, initial: 50 },
    ),
    turns: number({ title: 'Turns', description: 'How often.' }, { min: 1, max: 9, initial: 3, whole: true }),
    curves: text({ title: 'Curves', description: 'Which curves.', names: 'curves' }, 'gamma ray', 20),
    way: z.enum(['linear', 'curved']).default('linear').meta({ title: 'Way', description: 'Which way.' }),
    rows: z.array(z.object({ v0: z.number() })).default([]),
  }),
  outputs: {},
  run: async () => ({}),
}) as unknown as AnyStep;

const refused = (params: Record<string, unknown>): LithagonError => {
  try {
    checkParams(step, params);
  } catch (cause) {
    return cause as LithagonError;
  }
  throw new Error('it was taken');
};

describe('parameters of a step', () => {
  test('are completed by what the step begins with', () => {
    expect(checkParams(step, { turns: 4 })).toEqual({
      heightM: 50,
      turns: 4,
      curves: 'gamma ray',
      way: 'linear',
      rows: [],
    });
  });
  test.each([
    [{ heightM: 5 }, 'Made up: Height (heightM) is less than 10 m, the least that it may be.'],
    [{ heightM: 5000 }, 'Made up: Height (heightM) is more than 200 m, the most that it may be.'],
    [{ heightM: 'high' }, 'Made up: Height (heightM) is no number.'],
    [{ turns: 2.5 }, 'Made up: Turns (turns) is no whole number.'],
    [{ curves: '' }, 'Made up: Curves (curves) is empty.'],
    [{ curves: 'a'.repeat(21) }, 'Made up: Curves (curves) has more than 20 letters.'],
    [{ curves: 7 }, 'Made up: Curves (curves) is no text.'],
    [{ way: 'straight' }, 'Made up: Way (way) is none of “linear”, “curved”.'],
    [{ rows: [{ v0: 1 }, { v0: 'fast' }] }, 'Made up: “rows.1.v0” is no number.'],
    [{ hieght: 10 }, 'Made up has no parameter “hieght”.'],
  ])('%j is refused in a sentence', (params, sentence) => {
    expect(refused(params).message).toBe(sentence);
  });
  test('say what each is for, and which there are', () => {
    expect(refused({ heightM: 5 }).fix).toBe(
      'How high it stands. It has the parameters heightM, turns, curves, way, rows.',
    );
  });
});
