import { stepOf } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { expect, test } from 'vitest';
import { whatNext } from './next';

test('what is next follows what there is: files, a system, a wavelet, a tie', async () => {
  expect(whatNext([], false).map((n) => n.words)).toEqual(['Load seismic and wells']);
  const objects = await (await layeredField()).store.list();
  const words = whatNext(objects, false).map((n) => n.words);
  expect(words[0]).toBe('Declare the coordinate system');
  expect(words).toContain('Make a first wavelet');
  // what rests on a wavelet is not offered before there is one
  expect(words).not.toContain('Tie a first well');
  const wavelet = { ...objects[0], id: 'w', kind: 'wavelet' } as never;
  expect(whatNext([...objects, wavelet], true)[0].words).toBe('Tie a first well');
});

test('every step that is offered is there', async () => {
  const objects = await (await layeredField()).store.list();
  const more = ['wavelet', 'velocity model', 'pressures', 'contacts', 'time-depth relation', 'picks'].map(
    (kind) => ({ ...objects[0], id: kind, kind, domain: 'twt' }) as never,
  );
  const made = ['interpret.track', 'depth.horizon'].map(
    (step) =>
      ({ ...objects[0], id: step, kind: 'horizon', domain: 'twt', madeBy: { ...objects[0].madeBy, step } }) as never,
  );
  for (const all of [objects, [...objects, ...more], [...objects, ...more, ...made]])
    for (const { by } of whatNext(all, true)) if ('step' in by) expect(stepOf(by.step), by.step).toBeDefined();
});
