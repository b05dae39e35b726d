// @vitest-environment happy-dom
import { type Model, modelOf, type Volume } from '@lithagon/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, test } from 'vitest';
import { canTurn, tryVelocity, useConversion } from '../../state/conversion';
import { fieldOnTheDesk } from '../../testing/field';
import { inFrame } from './frame';
import { sectionLine } from './geometry';
import { useTurnedSamples, useTurning } from './useTurned';

const field = fieldOnTheDesk();

/** One velocity for all, 2000 m/s: a millisecond is a metre. */
const model: Model = modelOf({
  above: { waterVelocity: 2000 },
  nodes: null,
  seaBed: null,
  layers: [{ base: '', law: { form: 'constant', v0: 2000, k: 0 }, times: null, v0Map: null, corrections: [] }],
  cube: null,
});

beforeEach(() => useConversion.setState({ id: 'm', key: 'm@1', name: 'M', parts: model.parts, model, trial: null }));

const lineOf = (volume: Volume) => sectionLine(volume.binGrid, 'inline', 4);

test('samples of a line lie in depth where the model has them, as many as before', () => {
  const { seismic } = field;
  const { count, step } = seismic.vertical;
  const line = lineOf(seismic);
  const data = Float32Array.from({ length: line.traces * count }, (_, n) => Math.sin(0.2 * (n % count)));
  const plane = { key: 'p', data, index: 4 };
  const { result } = renderHook(() => {
    const turning = useTurning(line, 'depth');
    return { turning, turned: useTurnedSamples(seismic, line, plane, 'depth', turning) };
  });
  const { turned, turning } = result.current;
  if (!turned?.samples || !turning) throw new Error('the model turns it');
  expect(turned.vertical.first).toBe(0);
  const at = Math.round(400 / turned.vertical.step);
  const depth = at * turned.vertical.step;
  expect(turned.samples.data[3 * turned.vertical.count + at]).toBeCloseTo(Math.sin((0.2 * depth) / step), 2);
  expect(turned.vertical.count * turned.vertical.step).toBeGreaterThan(step * (count - 2));
  // positions too, both ways, between traces as well
  expect(inFrame({ line, domain: 'depth', turning }, 'twt')(2.5, 700)).toBeCloseTo(700, 6);
  expect(inFrame({ line, domain: 'depth', turning }, 'depth')(2, 700)).toBe(700);
  expect(inFrame({ line, domain: 'depth', turning: null }, 'twt')(2, 700)).toBeNaN();
});

test('a velocity that is tried is in what is turned, and leaves when it is put back', () => {
  const line = lineOf(field.seismic);
  const { result } = renderHook(() => useTurning(line, 'depth'));
  const depth = () => result.current && inFrame({ line, domain: 'depth', turning: result.current }, 'twt')(1, 800);
  expect(depth()).toBeCloseTo(800, 6);
  act(() => tryVelocity({ layer: 0, factor: 1.1 }));
  expect(depth()).toBeCloseTo(880, 6);
  expect(result.current?.quick).toBe(true);
  act(() => tryVelocity(null));
  expect(depth()).toBeCloseTo(800, 6);
});

test('without velocities only what is in a domain is shown there', () => {
  expect(canTurn('twt', 'depth')).toBe(true);
  expect(canTurn('twt', 'age')).toBe(false);
  useConversion.setState({ model: null });
  expect(canTurn('twt', 'depth')).toBe(false);
  expect(canTurn('depth', 'depth')).toBe(true);
});
