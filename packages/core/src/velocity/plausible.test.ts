import { describe, expect, test } from 'vitest';
import { questionsFor } from '../files/segy/inspect.ts';
import { normal } from '../testing/random.ts';
import { meanFromInterval } from './interval.ts';
import { doubtOf, kindByRun, runOfVelocities } from './plausible.ts';

const [STEP, COUNT, TRACES] = [20, 90, 30];

/** Interval velocities with a hard layer, those of each trace a little other. */
const intervals = (trace: number) =>
  Float64Array.from({ length: COUNT }, (_, k) => (k < 55 ? 1700 + 18 * k : 4800) * (1 + 0.01 * Math.sin(trace)));

const all = (of: (trace: number) => ArrayLike<number>) =>
  Array.from({ length: TRACES }, (_, n) => Array.from(of(n))).flat();
const look = (of: (trace: number) => ArrayLike<number>) => runOfVelocities(all(of), COUNT, 0, STEP);

describe('the kind of velocities', () => {
  test('is interval where they jump as no mean can, and is said with the reason', () => {
    const run = look(intervals);
    expect(run.jump?.ms).toBe(55 * STEP);
    expect(kindByRun(run)).toMatchObject({ kind: 'interval velocity' });
    expect(kindByRun(run).why).toMatch(/change by 80 % at 1100 ms, as no mean from time 0 can/);
  });
  test.each([1, 2] as const)('is left open of means of power %i, with noise of picks too', (power) => {
    const random = normal(3);
    const clean = look((n) => meanFromInterval(intervals(n), 0, STEP, power));
    expect(clean).toEqual({ jump: null, rising: true });
    expect(kindByRun(clean)).toMatchObject({ kind: null, why: expect.stringContaining('RMS, stacking, average') });
    const noisy = look((n) => meanFromInterval(intervals(n), 0, STEP, power).map((v) => v * (1 + 0.003 * random())));
    expect(noisy.jump).toBeNull();
  });
  test('that was declared wrong is doubted in a sentence, a right one is not', () => {
    const run = look(intervals);
    expect(doubtOf('cube.sgy', 'RMS velocity', run)).toMatch(/^cube.sgy was declared RMS velocity, but .* as no mean/);
    expect(doubtOf('cube.sgy', 'interval velocity', run)).toBeNull();
    expect(
      doubtOf(
        'cube.sgy',
        'stacking velocity',
        look((n) => meanFromInterval(intervals(n), 0, STEP, 2)),
      ),
    ).toBeNull();
  });
  test('is offered on loading against what a name says, where the values rule that out', () => {
    const stats = { min: 1480, negative: 0, median: 2135, run: look(intervals) };
    const hint = questionsFor(stats, ['vrms.sgy']).find((q) => q.key === 'quantity')?.hint;
    expect(hint).toMatchObject({ value: 'interval velocity' });
    expect(hint?.why).toContain('Its name or text header says RMS velocity.');
    const smooth = { ...stats, run: look((n) => meanFromInterval(intervals(n), 0, STEP, 2)) };
    expect(questionsFor(smooth, ['cube.sgy']).find((q) => q.key === 'quantity')?.hint?.value).toBeNull();
    expect(questionsFor(smooth, ['vrms.sgy']).find((q) => q.key === 'quantity')?.hint?.value).toBe('RMS velocity');
  });
});
