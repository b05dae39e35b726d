import { describe, expect, test } from 'vitest';
import { fieldMaterial, fieldTexture, setField, setLook } from './field';

const values = (t: ReturnType<typeof fieldTexture>) => t.image.data as unknown as Float32Array;

describe('samples as a texture', () => {
  test('are themselves, rows along y; what is missing or infinite is a mark that no sample is', () => {
    const texture = fieldTexture(Float32Array.of(1, Number.NaN, 3, 4, Number.POSITIVE_INFINITY, 6), 2, 3);
    expect([texture.image.width, texture.image.height]).toEqual([3, 2]);
    expect(Array.from(values(texture), (v) => (v > 1e38 ? null : v))).toEqual([1, null, 3, 4, null, 6]);
  });
  test.each([
    [9000, 2],
    [2, 9001],
    [8192, 3],
  ])('of %i rows of %i are thinned evenly to what every device takes, ends kept', (rows, samples) => {
    const data = Float32Array.from({ length: rows * samples }, (_, n) => n);
    const texture = fieldTexture(data, rows, samples);
    const { width, height } = texture.image;
    expect(Math.max(width, height)).toBeLessThanOrEqual(8192);
    expect([width, height]).toEqual([Math.min(8192, samples), Math.min(8192, rows)]);
    const kept = values(texture);
    expect(kept[0]).toBe(0);
    expect(kept[kept.length - 1]).toBe(rows * samples - 1);
    // no two neighbours are more than two apart
    if (rows > 8192)
      for (let r = 1; r < height; r++) expect(kept[r * width] - kept[(r - 1) * width]).toBeLessThanOrEqual(2 * samples);
  });
});

test('a look is uniforms: ends, turning, steps and opacity, and never a range of nothing', () => {
  const material = fieldMaterial();
  setField(material, fieldTexture(new Float32Array(6), 2, 3));
  setLook(material, { map: 'ink', low: -5, high: 5, reverse: true, steps: 7, opacity: 0.5 });
  const { range, turned, steps, opacity, size } = material.uniforms;
  expect([range.value.x, range.value.y, turned.value, steps.value, opacity.value]).toEqual([-5, 5, 1, 7, 0.5]);
  expect([size.value.x, size.value.y]).toEqual([3, 2]);
  setLook(material, { map: 'ink', low: 2, high: 2, reverse: false });
  expect([range.value.x, range.value.y, turned.value, steps.value, opacity.value]).toEqual([2, 3, 0, 0, 1]);
});
