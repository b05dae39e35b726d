import { afterEach, expect, test } from 'vitest';
import { memoryStore } from '../storage/memory.ts';
import { madeVolume } from '../testing/volume.ts';
import { curveClassSchema } from './objects/wells.ts';
import {
  endsText,
  forgetQuantity,
  isQuantity,
  QUANTITIES,
  quantitiesOf,
  quantityFacts,
  registerQuantity,
} from './quantities.ts';
import { dimensionOf } from './units.ts';

afterEach(() => forgetQuantity('dip azimuth'));

test('every quantity has a range that its colours and tracks can be drawn over, and a unit that is known', () => {
  for (const [name, facts] of Object.entries(QUANTITIES)) {
    expect(facts.range[0], name).toBeLessThan(facts.range[1]);
    expect(facts.of.length, name).toBeGreaterThan(0);
    // impedance is written one way only
    if (facts.unit && facts.unit !== 'kg/m²s') expect(dimensionOf(facts.unit), `${name} in ${facts.unit}`).toBeTruthy();
    if (facts.track) {
      const ends = [facts.track.from, facts.track.to];
      // a track may be wider than what is legal by the width of a line, and no more
      expect(Math.min(...ends), name).toBeGreaterThanOrEqual(facts.range[0]);
      expect(Math.max(...ends), name).toBeLessThanOrEqual(1.2 * facts.range[1]);
      if (facts.track.log) expect(Math.min(...ends), name).toBeGreaterThan(0);
    }
    if (facts.ends) expect(facts.range.every(Number.isFinite), name).toBe(true);
  }
});

test('curves are of the quantities that volumes, maps and cells share', () => {
  for (const cls of curveClassSchema.options) if (cls !== 'other') expect(isQuantity(cls), cls).toBe(true);
  expect(quantitiesOf('cell')).toEqual(expect.arrayContaining(['porosity', 'impedance', 'density']));
  expect(quantitiesOf('volume')).not.toContain('gamma ray');
});

test('a quantity made up on the spot is held, drawn in its colours and named at its ends with no other file touched', async () => {
  const store = memoryStore();
  const volume = await madeVolume(store, (i) => i);
  const azimuth = { ...volume, id: 'azimuth', quantity: 'dip azimuth' as never, layouts: undefined };
  await expect(store.commit({ put: [azimuth] })).rejects.toThrow('quantity: is no quantity');
  registerQuantity('dip azimuth', {
    unit: '°',
    range: [0, 360],
    symmetric: false,
    colors: { map: 'compass', reverse: false },
    clip: 100,
    ends: ['north', 'north'],
    average: 'arithmetic',
    scale: 'cyclic',
    of: ['volume', 'map'],
  });
  await store.commit({ put: [azimuth] });
  expect(quantityFacts('dip azimuth').scale).toBe('cyclic');
  expect(endsText('dip azimuth')).toBe('0 north to 360 north');
  expect(quantitiesOf('volume')).toContain('dip azimuth');
  expect(() => registerQuantity('amplitude', quantityFacts('amplitude'))).toThrow('two quantities');
});
