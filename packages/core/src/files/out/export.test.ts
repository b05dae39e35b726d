import { fromArrayBuffer } from 'geotiff';
import { describe, expect, test } from 'vitest';
import { toMap } from '../../earth/binGrid.ts';
import { type FluidContacts, type Polygon, TOP_COLUMNS, type Well, type WellTable } from '../../earth/objects.ts';
import { parseGeoJson } from '../../formats/geojson/parse.ts';
import { newDrawn } from '../../project/given.ts';
import { memoryStore } from '../../storage/memory.ts';
import { FRAME, MADE, madeHorizon, TURNED } from '../../testing/objects.ts';
import { exportFormats, exportObject } from './export.ts';

const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
const height = (i: number, j: number) => (i === 3 && j === 4 ? Number.NaN : 1000 + 2 * i - j / 3);

describe('a horizon', () => {
  test('as CSV: a row a bin with its lines, place and value; a null is empty', async () => {
    const store = memoryStore();
    const lines = text(await exportObject(store, await madeHorizon(store, 'H', 'depth', height), 'csv', FRAME)).split(
      '\n',
    );
    expect(lines[0]).toBe('inline,crossline,x_m,y_m,depth_m');
    expect(lines).toHaveLength(12 * 15 + 2);
    const [x, y] = toMap(TURNED, 3, 5);
    expect(lines[1 + 3 * 15 + 5]).toBe(
      `1003,2005,${Number(x.toFixed(2))},${Number(y.toFixed(2))},${Number(height(3, 5).toFixed(3))}`,
    );
    expect(lines[1 + 3 * 15 + 4]).toMatch(/^1003,2004,.*,$/);
  });
  test('as GeoTIFF: the values themselves, each in the middle of its turned pixel, with its coordinate system', async () => {
    const store = memoryStore();
    const bytes = await exportObject(store, await madeHorizon(store, 'H', 'twt', height), 'tif', FRAME);
    const image = await (await fromArrayBuffer(bytes.slice().buffer as ArrayBuffer)).getImage();
    expect([image.getWidth(), image.getHeight()]).toEqual([15, 12]);
    expect(image.getGeoKeys()?.ProjectedCSTypeGeoKey).toBe(32740);
    const values = (await image.readRasters({ interleave: true })) as unknown as Float32Array;
    const m = image.getFileDirectory().getValue('ModelTransformation') as number[];
    for (const [i, j] of [
      [0, 0],
      [11, 14],
      [3, 5],
    ]) {
      expect(values[i * 15 + j]).toBeCloseTo(height(i, j), 3);
      const [x, y] = toMap(TURNED, i, j);
      expect(m[0] * (j + 0.5) + m[1] * (i + 0.5) + m[3]).toBeCloseTo(x, 6);
      expect(m[4] * (j + 0.5) + m[5] * (i + 0.5) + m[7]).toBeCloseTo(y, 6);
    }
    expect(values[3 * 15 + 4]).toBeNaN();
  });
});

describe('wells and drawings', () => {
  const well: Well = {
    id: 'w',
    kind: 'well',
    name: 'QN-9',
    revision: '1',
    stage: 'wells',
    madeBy: MADE,
    x: 100,
    y: 200,
    kbM: 25,
    totalMdM: 500,
  };
  const table = (kind: WellTable['kind'], rows: WellTable['rows']): WellTable => ({
    id: kind,
    kind,
    name: `QN-9 ${kind}`,
    revision: '1',
    stage: 'wells',
    madeBy: MADE,
    well: 'QN-9',
    columns: kind === 'tops' ? TOP_COLUMNS : [],
    rows,
  });
  test('a path has MD, place, TVD from the kelly bushing and TVDSS', async () => {
    const store = memoryStore();
    await store.commit({ put: [well] });
    const lines = text(await exportObject(store, well, 'csv', FRAME))
      .trim()
      .split('\n');
    expect(lines[0]).toBe('md_m,x_m,y_m,tvd_m,tvdss_m');
    expect(lines.at(-1)).toBe('500,100,200,500,475');
  });
  test('tops have their places, and times by the checkshots', async () => {
    const store = memoryStore();
    const tops = table('tops', [['Tolven Top', 325]]);
    const shots = table('checkshots', [
      [125, 100, 100],
      [425, 400, 400],
    ]);
    await store.commit({ put: [well, tops, shots] });
    expect(text(await exportObject(store, tops, 'csv', FRAME))).toBe(
      'well,top,md_m,x_m,y_m,tvdss_m,twt_ms\nQN-9,Tolven Top,325,100,200,300,300\n',
    );
  });
  test('an outline as GeoJSON comes back the same through the reader', async () => {
    const store = memoryStore();
    const rings: Polygon['rings'] = [
      [
        [0, 0],
        [100, 0],
        [100, 50],
        [0, 0],
      ],
    ];
    const area = newDrawn<Polygon>({ kind: 'polygon', name: 'Area', closed: true, rings });
    const [back] = parseGeoJson('area.geojson', text(await exportObject(store, area, 'geojson', FRAME))).shapes;
    expect(back.closed).toBe(true);
    expect(back.rings).toEqual(rings);
  });
  test('a name that a spreadsheet would take for a formula is defused', async () => {
    const store = memoryStore();
    const tops = table('facies', [['=1+1', 'a,b']]);
    const named = {
      ...tops,
      columns: [
        { name: 'Facies', unit: '' },
        { name: 'Note', unit: 'm TVDSS' },
      ],
    };
    expect(text(await exportObject(store, named, 'csv', FRAME))).toBe(`facies,note_m_tvdss\n'=1+1,"a,b"\n`);
  });
});

test('what cannot be written is refused by name, saying what can', async () => {
  const store = memoryStore();
  const horizon = await madeHorizon(store, 'H', 'depth', height);
  await expect(exportObject(store, horizon, 'docx', FRAME)).rejects.toThrow(
    'H is a horizon, which cannot be written as “.docx”.',
  );
  expect(exportFormats({ kind: 'contacts' } as FluidContacts)).toEqual({});
});
