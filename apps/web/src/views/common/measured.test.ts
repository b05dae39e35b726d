import { type Domain, unitsOf } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { expect, test } from 'vitest';
import { measured, measuredWords } from './measured';

test('between two places lie a distance, an azimuth and a height', () => {
  const m = measured([1000, 2000, 500], [1300, 1600, 530], 'twt');
  expect(m.acrossM).toBeCloseTo(500, 9);
  // towards the south-east
  expect(m.azimuth).toBeCloseTo(180 - (Math.atan2(300, 400) * 180) / Math.PI, 9);
  expect(m.down).toBe(30);
  expect(measured([0, 0, null], [0, 10, 5], 'depth').down).toBeNull();
});

test('in words: dip in depth by its angle, thickness and velocity by the nearest well', async () => {
  const objects = await (await layeredField()).store.list();
  const words = (a: [number, number, number], b: [number, number, number], domain: Domain) =>
    Object.fromEntries(measuredWords(a, b, domain, objects, unitsOf(null)).map((f) => [f.label, f.value]));
  const deep = words([512500, 7642000, 400], [512500, 7642100, 500], 'depth');
  expect(deep).toMatchObject({
    Distance: '100 m',
    Azimuth: '0° (N)',
    Thickness: '100.0 m',
    Dip: '45.0°, down to the N',
  });
  // the made-up earth is of 1800 m/s above its top
  expect(deep['Interval velocity']).toMatch(/^1 ?800 m\/s by T-1$/);
  const inTime = words([512500, 7642000, 300], [512500, 7642000, 400], 'twt');
  expect(inTime).toMatchObject({ Azimuth: 'straight down', 'Interval time': '100.0 ms', Thickness: '90 m by T-1' });
  expect(inTime.Dip).toBeUndefined();
});
