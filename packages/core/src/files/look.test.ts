import { describe, expect, test } from 'vitest';
import { cornersOf } from '../earth/binGrid.ts';
import { crsTable } from '../earth/crsTable.ts';
import type { EarthObject, Well } from '../earth/objects.ts';
import { memorySource } from '../formats/source.ts';
import { layeredField } from '../testing/layeredField.ts';
import { FRAME, MADE, TURNED } from '../testing/objects.ts';
import type { Around } from './context.ts';
import { farFrom } from './far.ts';
import { inspectFile } from './inspect.ts';
import { questionsFor } from './segy/inspect.ts';

const well = (name: string, x: number, y: number): Well => ({
  id: name,
  kind: 'well',
  name,
  revision: '1',
  stage: 'wells',
  madeBy: MADE,
  x,
  y,
  kbM: 25,
});
const around = (...objects: EarthObject[]): Around => ({ objects, frame: FRAME, crsTable });
const QUILLON = around(well('QN-1', 513_940, 7_644_573), well('QN-2', 513_668, 7_644_133));
const look = (name: string, text: string, beside: Around) =>
  inspectFile(memorySource(name, new TextEncoder().encode(text)), {}, { around: beside });

describe('places far from what a project holds', () => {
  const at = (...points: [number, number][]) => ({ lines: [], points: points.map(([x, y]) => ({ x, y, label: '' })) });
  test('are said with how many there are and how far, in the units of the project', () => {
    expect(farFrom(at([514_000, 7_644_500], [1, 2]), QUILLON)).toMatch(/^1 of its 2 places lie up to 7661 km /);
    const field = { ...QUILLON, frame: { ...FRAME, display: 'field' as const } };
    expect(farFrom(at([1, 2]), field)).toMatch(/^It lies up to 25136 thousand ft /);
  });
  test('are not doubted within fifty kilometres, nor where there is nothing to be far from', () => {
    expect(farFrom(at([560_000, 7_644_500]), QUILLON)).toBeNull();
    expect(farFrom(at([1, 2]), around())).toBeNull();
    expect(farFrom(at(), QUILLON)).toBeNull();
  });
  test('are counted among as many as a country has wells', () => {
    const objects = Array.from({ length: 200_000 }, (_, n) => well(`W${n}`, 514_000, 7_644_500 + (n % 1000)));
    const project = { ...QUILLON, objects };
    const points = objects.map(({ x, y }, n) => ({ x, y: y + (n % 2) * 9e6, label: '' }));
    expect(farFrom({ lines: [], points }, project)).toContain('100000 of its 200000 places');
    expect(farFrom(at([514_000, 7_644_500]), project)).toBeNull();
  });
  test('are told by the survey where there is one, whatever one well says', async () => {
    const astray = well('QX-9', 1, 2);
    expect(farFrom(at([7_644_572, 513_940]), around(...QUILLON.objects, astray))).toBeNull();
    const { seismic } = await layeredField();
    const [[x, y]] = cornersOf(seismic.binGrid);
    const project = around(seismic, well('QX-9', x + 9e6, y));
    expect(farFrom(at([x + 8e6, y]), project)).toContain('check its coordinate system');
    expect(farFrom(at([x + 8e3, y]), project)).toBeNull();
  });
  test('a line is as near as its nearest point', () => {
    const coast: [number, number][] = Array.from({ length: 50 }, (_, n) => [513_000 + 20_000 * n, 7_644_000]);
    expect(farFrom({ lines: [coast], points: [] }, QUILLON)).toBeNull();
    expect(farFrom({ lines: [coast.slice(10)], points: [] }, QUILLON)).toContain('check its coordinate system');
  });
  test('a table of wells with swapped columns is told before it is loaded', async () => {
    const text = 'well,x_m,y_m,kb_m\nQN-3,7644572,513940,25\n';
    const { problems, refused } = await look('heads.csv', text, QUILLON);
    expect(refused).toBeUndefined();
    expect(problems.join(' ')).toContain('check its coordinate system, unit and columns');
  });
});

describe('a file in another system', () => {
  const [first] = cornersOf(TURNED);
  test('in longitude and latitude is drawn where it is in the project, and says that it is converted', async () => {
    // EPSG Guidance Note 7-2: the central meridian of zone 40S, 57°E, lies at an easting of 500 000 m
    const text = JSON.stringify({
      type: 'LineString',
      coordinates: [
        [57, -21.3],
        [57.1, -21.3],
      ],
    });
    const { sketch, problems } = await look('coast.geojson', text, QUILLON);
    const [[west, east]] = sketch.lines;
    expect(west[0]).toBeCloseTo(500_000, 0);
    expect(east[0] - west[0]).toBeGreaterThan(10_000);
    expect(east[0] - west[0]).toBeLessThan(10_500);
    expect(problems.join(' ')).toContain('Converted from EPSG:4326');
    expect(problems.join(' ')).not.toContain('check its coordinate system');
  });
  test('without a project stays in its own numbers', async () => {
    const text = JSON.stringify({ type: 'LineString', coordinates: [first, [first[0] + 100, first[1]]] });
    const { sketch } = await inspectFile(memorySource('line.geojson', new TextEncoder().encode(text)));
    expect(sketch.lines[0][0]).toEqual(first);
  });
});

describe('samples that look like velocities', () => {
  const stats = { min: 1480, negative: 0, median: 2135 };
  const hintOf = (...says: string[]) => questionsFor(stats, says).find((q) => q.key === 'quantity')?.hint;
  test.each([
    ['velocity-stacking.sgy', 'stacking velocity'],
    ['Quillon_Vrms.segy', 'RMS velocity'],
    ['VINT_final.sgy', 'interval velocity'],
    ['C 2 AVERAGE VELOCITY, M/S', 'average velocity'],
    ['C 4 NMO VELOCITIES, SMOOTHED', 'stacking velocity'],
  ])('%s says %s', (says, kind) => expect(hintOf('cube.sgy', says)?.value).toBe(kind));
  test.each([
    [['cube.sgy', 'C 6 SAMPLES PER TRACE 91   SAMPLE INTERVAL 20 MS']],
    [['vstack.sgy', 'C 2 INTERVAL VELOCITY FROM STACKING VELOCITY']],
  ])('%s say nothing for certain, so that no kind is offered', (says) => {
    expect(hintOf(...says)).toMatchObject({ value: null });
    expect(hintOf(...says)?.why).toContain('Of which kind, the file does not say.');
  });
  test('swinging samples are hinted to be amplitudes whatever the name says', () => {
    const [, quantity] = questionsFor({ min: -3000, negative: 0.5, median: 0 }, ['vrms.sgy']);
    expect(quantity.hint?.value).toBe('amplitude');
  });
});
