import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type FieldPicture, fieldPicture, fieldPictureTwin, loadKernels, type PictureRoom } from './index.ts';

const room: PictureRoom = { kernels: loadKernels(), held: null };
const draw = (picture: FieldPicture) => new Uint32Array(fieldPicture(room, picture).slice().buffer);
/** Colours that are their own place in the table, so that a picture reads as values. */
const ladder = (count: number) => Uint32Array.from({ length: count }, (_, n) => n + 1);

test('the kernel gives what its plain twin gives, to one step of the table, missing samples and any angle included', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 9 }),
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: 1, max: 24 }),
      fc.integer({ min: 1, max: 24 }),
      fc.oneof(fc.constantFrom(0, Math.PI), fc.double({ min: -Math.PI, max: Math.PI, noNaN: true })),
      fc.double({ min: 0.1, max: 3, noNaN: true }),
      fc.nat(),
      (rows, samples, width, height, angle, zoom, seed) => {
        let state = seed;
        const next = () => {
          state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
          return state / 4294967296;
        };
        const data = Float32Array.from({ length: rows * samples }, () => (next() < 0.1 ? Number.NaN : next() * 2 - 1));
        // level lines are drawn another way than turned ones
        const [cos, sin] = [Math.cos(angle) * zoom, angle === 0 || angle === Math.PI ? 0 : Math.sin(angle) * zoom];
        const picture: FieldPicture = {
          data,
          rows,
          samples,
          width,
          height,
          sample: [samples * (next() - 0.2), sin, cos],
          row: [rows * (next() - 0.2), cos, -sin],
          colors: ladder(256),
          low: -0.8,
          high: 0.9,
        };
        const twin = new Uint32Array(width * height);
        fieldPictureTwin(picture, twin);
        const drawn = draw(picture);
        for (let n = 0; n < twin.length; n++) {
          expect(drawn[n] === 0).toBe(twin[n] === 0);
          expect(Math.abs(drawn[n] - twin[n])).toBeLessThanOrEqual(1);
        }
      },
    ),
    { numRuns: 200, seed: 11 },
  );
});

test('a plane comes out as a plane between its samples, upright or turned', () => {
  const [rows, samples] = [12, 30];
  const data = Float32Array.from({ length: rows * samples }, (_, n) => 3 * Math.floor(n / samples) + 2 * (n % samples));
  for (const angle of [0, 0.4, Math.PI / 2]) {
    const [cos, sin] = [0.31 * Math.cos(angle), 0.31 * Math.sin(angle)];
    const picture: FieldPicture = {
      data,
      rows,
      samples,
      width: 15,
      height: 12,
      sample: [8, cos, -sin],
      row: [4, sin, cos],
      colors: ladder(1001),
      low: 0,
      high: 100,
    };
    const drawn = draw(picture);
    for (let y = 0; y < 12; y++)
      for (let x = 0; x < 15; x++) {
        const value = 3 * (4 + x * sin + y * cos) + 2 * (8 + x * cos - y * sin);
        expect(Math.abs((drawn[y * 15 + x] - 1) / 10 - value)).toBeLessThanOrEqual(0.0501);
      }
  }
});

test('values at and past the ends of the table take its end colours, and pixels outside the field none', () => {
  const picture: FieldPicture = {
    data: Float32Array.from([-5, -5, 5, 5]),
    rows: 2,
    samples: 2,
    width: 4,
    height: 1,
    sample: [0.5, 0, 0],
    row: [-1, 1, 0],
    colors: Uint32Array.from([7, 8, 9]),
    low: -1,
    high: 1,
  };
  expect([...draw(picture)]).toEqual([0, 7, 9, 0]);
});

test('a picture drawn after another field is that field’s', () => {
  const of = (value: number): FieldPicture => ({
    data: new Float32Array(16).fill(value),
    rows: 4,
    samples: 4,
    width: 2,
    height: 2,
    sample: [1, 0.5, 0],
    row: [1, 0, 0.5],
    colors: ladder(11),
    low: 0,
    high: 10,
  });
  expect([...draw(of(3))]).toEqual([4, 4, 4, 4]);
  expect([...draw(of(6))]).toEqual([7, 7, 7, 7]);
});
