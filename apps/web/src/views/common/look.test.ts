import { describe, expect, test } from 'vitest';
import { defaultDisplay } from '../../state/views/display';
import { formatCoordinate, formatValue, lookOf } from './look';

const statistics = {
  min: 1500,
  max: 4500,
  mean: 2500,
  rms: 2600,
  count: 10,
  nulls: 0,
  absolute: { '99': 2000, '95': 1200, '100': 4000 },
  percentiles: { '0': 1500, '1': 1600, '5': 1800, '95': 4000, '99': 4300, '100': 4500 },
};

describe('where colours end', () => {
  test('is alike on both sides of nothing for amplitudes, and nearer with gain', () => {
    const display = defaultDisplay('amplitude');
    const amplitude = { quantity: 'amplitude' as const, statistics };
    expect(lookOf(amplitude, display)).toMatchObject({ low: -2000, high: 2000, map: 'rust–bone–slate' });
    expect(lookOf(amplitude, { ...display, gain: 2, clip: 95 })).toMatchObject({ low: -600, high: 600 });
  });
  test('is at percentiles for what is not about nothing, and gain narrows it about its middle', () => {
    const velocity = { quantity: 'interval velocity' as const, statistics };
    const display = defaultDisplay('interval velocity');
    expect(lookOf(velocity, display)).toMatchObject({ low: 1500, high: 4500 });
    expect(lookOf(velocity, { ...display, clip: 95 })).toMatchObject({ low: 1800, high: 4000 });
    expect(lookOf(velocity, { ...display, gain: 3 })).toMatchObject({ low: 2500, high: 3500 });
  });
  test('is somewhere even where every sample is the same', () => {
    const none = { quantity: 'amplitude' as const, statistics: { ...statistics, absolute: { '99': 0 } } };
    const { low, high } = lookOf(none, defaultDisplay('amplitude'));
    expect(high).toBeGreaterThan(low);
  });
});

test('values read with as many places as they carry, thin spaces between thousands, and a minus that is one', () => {
  expect([1234567, -2796, 12.345, -0.5, 0.01234, 0].map(formatValue)).toEqual([
    '1\u202f234\u202f567',
    '−2\u202f796',
    '12.3',
    '−0.500',
    '0.0123',
    '0.000',
  ]);
  expect(formatCoordinate(7641900.25)).toBe('7\u202f641\u202f900.3');
});
