import type { EarthObject } from '../earth/objects.ts';
import { memoryStore } from '../storage/memory.ts';
import { MADE, madeHorizon, TURNED } from './objects.ts';
import { madeVolume } from './volume.ts';

const ref = (key: string, ...shape: number[]) => ({ key, shape, chunk: shape });
const own = (id: string, stage: string) => ({ id, name: id, revision: 'r', stage, madeBy: MADE });

/** One object of every kind that a project may hold, each of its fields filled. */
export async function oneOfEachKind(): Promise<EarthObject[]> {
  const store = memoryStore();
  const horizon = await madeHorizon(store, 'H', 'twt', (i) => 900 + i);
  const volume = await madeVolume(store, (i, j, k) => i + j + k);
  const bins = [TURNED.inline.count, TURNED.crossline.count];
  const table = (kind: string) => ({
    ...own(`t-${kind.replaceAll(' ', '-')}`, 'wells'),
    kind,
    well: 'W',
    columns: [{ name: 'Top', unit: '' }],
    rows: [['A', 1, null]],
  });
  return [
    {
      ...volume,
      color: '#2f6f8f',
      tags: ['a'],
      note: 'n',
      polarity: 'harder-positive',
      text: ['C 1'],
    },
    { ...horizon, confidence: ref(`${horizon.id}/confidence`, ...bins) },
    {
      ...own('line', 'data'),
      kind: 'seismic line',
      domain: 'twt',
      quantity: 'amplitude',
      unit: '',
      vertical: { first: 0, step: 4, count: 5 },
      path: [
        [0, 0],
        [1, 1],
      ],
      cdps: [1, 2],
      shotpoints: [1, 2],
      samples: ref('line/samples', 2, 5),
      statistics: volume.statistics,
    },
    { ...own('stations', 'data'), kind: 'points', points: [[1, 2]], names: ['A'] },
    { ...own('nav', 'data'), kind: 'navigation', line: 'L', by: 'cdp', points: [[1, 2, 3]] },
    { ...own('well', 'wells'), kind: 'well', x: 1, y: 2, kbM: 25, totalMdM: 1000, status: 's' },
    {
      ...own('logs', 'wells'),
      kind: 'logs',
      well: 'W',
      depth: { firstM: 0, stepM: 0.5, count: 10 },
      curves: [
        {
          mnemonic: 'GR',
          class: 'gamma ray',
          unit: 'API',
          fileUnit: 'GAPI',
          description: '',
          data: ref('logs/0', 10),
          min: 0,
          max: 1,
          nulls: 0,
        },
      ],
    },
    ...(['directional surveys', 'tops', 'checkshots', 'pressures', 'fluid samples', 'core points', 'facies'].map(
      table,
    ) as EarthObject[]),
    {
      ...own('column', 'wells'),
      kind: 'stratigraphic column',
      units: [{ top: 'A', zone: 'A', color: '#123456', pattern: 'sand', unconformity: false }],
    },
    { ...own('fault', 'interpret'), kind: 'fault', domain: 'twt', sticks: [[[1, 2, 3]]] },
    {
      ...own('picks', 'interpret'),
      kind: 'picks',
      domain: 'twt',
      event: 'peak',
      points: [[1, 2, 3]],
      erased: [[[1, 2]]],
    },
    { ...own('polygon', 'interpret'), kind: 'polygon', closed: true, rings: [[[1, 2]]] },
    {
      ...own('map', 'volumes'),
      kind: 'map',
      binGrid: TURNED,
      quantity: 'thickness',
      unit: 'm',
      values: ref('map/values', ...bins),
      range: [0, 1],
      classes: ['A'],
    },
    {
      ...own('contacts', 'volumes'),
      kind: 'contacts',
      gocM: 1,
      owcM: 2,
      fluids: ['oil', 'water'],
      base: 'seen',
      gocRange: [0, 1],
      owcRange: [1, 2],
      misfitPa: 1,
    },
    {
      ...own('table', 'volumes'),
      kind: 'result table',
      columns: [{ name: 'a', unit: '' }],
      rows: [[1, 'a', null]],
      records: [{ a: 1 }],
    },
    {
      ...own('model', 'depth'),
      kind: 'velocity model',
      binGrid: TURNED,
      waterVelocity: 1500,
      layers: [{ base: 'H', v0: 2000, k: 0.4, v0Map: ref('model/v0-0', ...bins), rms: 1, points: 3 }],
    },
    {
      ...own('wavelet', 'tie'),
      kind: 'wavelet',
      stepMs: 2,
      firstMs: -2,
      samples: [0, 1, 0],
      method: 'Ricker',
      phaseDeg: 0,
      angleDeg: 10,
      estimate: {
        halfWidth: [1],
        predictability: 1,
        band: [{ hz: 10, signalToNoise: 2 }],
        wells: ['W'],
        tried: [{ lengthMs: 1, noise: 1, error: 1 }],
      },
    },
    {
      ...own('relation', 'tie'),
      kind: 'time-depth relation',
      well: 'W',
      pairs: [
        [0, 0],
        [1, 1],
      ],
      knees: [{ tvdss: 1, driftMs: 1 }],
      shiftMs: 0,
      phaseDeg: 0,
      correlation: 0.5,
      windowMs: [0, 1],
      activated: 'now',
      pins: [{ twt: 1, shiftMs: 1 }],
      evidence: {
        chance: 0,
        runnerUp: { shiftMs: 1, correlation: 1 },
        asDeclared: 1,
        turnedOver: 1,
        predictability: 1,
        uncertaintyMs: 1,
        velocityChange: 1,
        warnings: ['w'],
      },
      reason: 'r',
    },
    {
      ...own('gather', 'tie'),
      kind: 'synthetic gather',
      well: 'W',
      anglesDeg: [0, 10],
      firstMs: 0,
      stepMs: 2,
      samples: ref('gather/samples', 2, 8),
      form: 'exact',
    },
    {
      ...own('faultsets', 'interpret'),
      kind: 'fault sets',
      sets: [{ name: 'To WSW', dip: 58, azimuth: 247, kappa: 30, share: 1 }],
      members: [{ fault: 'fault', name: 'A fault', set: 0, dip: 57, azimuth: 246, areaM2: 2e6, sure: 1 }],
    },
    {
      ...own('bodies', 'attributes'),
      kind: 'bodies',
      domain: 'twt',
      binGrid: TURNED,
      vertical: { first: 0, step: 4, count: 5 },
      runs: ref('bodies/runs', 3, 5),
      bodies: [
        { samples: 9, bins: 3, top: 1, base: 4, volumeM3: 1e5, edgeM: 900, lowestM: 910, spreadM: 5, chance: 0.01 },
      ],
    },
    {
      ...own('blend', 'attributes'),
      kind: 'blend',
      of: 'volume',
      domain: 'twt',
      red: { from: 0, to: 1 },
      green: { from: 1, to: 0 },
      blue: { from: 0, to: 2 },
      shade: { from: 0, to: 1 },
      strength: 0.5,
      axes: 'blue, grey, amber',
      set: true,
    },
    {
      ...own('class', 'wells'),
      kind: 'crossplot class',
      x: { of: 'porosity', log: false },
      y: { of: 'density', log: true },
      ring: [
        [0, 0],
        [1, 0],
        [1, 1],
      ],
      limits: [{ of: 'sonic', from: 1, to: 2 }],
    },
  ];
}
