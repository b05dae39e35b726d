import {
  type AnyStep,
  checkParams,
  type InputSpec,
  memoryStore,
  quantityFacts,
  RunningStatistics,
  readPlane,
  type Store,
  tryOn,
  type Volume,
  volumeWriter,
} from '@lithagon/core';

const [INLINES, CROSSLINES, SAMPLES] = [9, 96, 120];

const ricker = (ms: number, hz: number) => {
  const q = ((Math.PI * hz * ms) / 1000) ** 2;
  return (1 - 2 * q) * Math.exp(-q);
};

/** Even noise between −1 and 1, the same each time. */
function noise(): () => number {
  let state = 9;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 31 - 1;
  };
}

/** A made-up volume for the guide's pictures: beds that dip, a fault, noise, and a loss of strength downwards. */
async function madeUp(store: Store): Promise<Volume> {
  const writer = await volumeWriter(store, 'guide', [INLINES, CROSSLINES, SAMPLES]);
  const statistics = new RunningStatistics();
  const random = noise();
  const beds = Array.from({ length: 34 }, (_, n) => ({ at: 30 + 14 * n + 5 * random(), size: 0.2 + 0.8 * random() }));
  for (let i0 = 0; i0 < INLINES; i0 += writer.slab) {
    const slab = new Float32Array(writer.slab * CROSSLINES * SAMPLES).fill(Number.NaN);
    for (let i = i0; i < Math.min(INLINES, i0 + writer.slab); i++)
      for (let j = 0; j < CROSSLINES; j++)
        for (let k = 0; k < SAMPLES; k++) {
          const t = 4 * k;
          // the fault leans to the right, and its throw is 26 ms
          const thrown = j > 52 + 0.12 * k ? 26 : 0;
          let v = 0.12 * random();
          for (const b of beds) {
            const off = t - b.at - thrown - 0.25 * j - 0.6 * i - 9 * Math.sin(j / 17);
            if (Math.abs(off) < 60) v += b.size * ricker(off, 32);
          }
          slab[((i - i0) * CROSSLINES + j) * SAMPLES + k] = v * Math.exp(-t / 420);
        }
    const part = slab.subarray(0, Math.min(writer.slab, INLINES - i0) * CROSSLINES * SAMPLES);
    statistics.add(part);
    await writer.write(i0, part);
  }
  await writer.finish();
  return {
    id: 'guide',
    kind: 'volume',
    name: 'Before',
    revision: '1',
    stage: 'data',
    madeBy: {
      step: 'data.load',
      version: 1,
      params: {},
      inputs: {},
      started: '2026-01-01T00:00:00.000Z',
      tookMs: 0,
      warnings: [],
      engine: '',
    },
    binGrid: {
      inline: { first: 1, step: 1, count: INLINES },
      crossline: { first: 1, step: 1, count: CROSSLINES },
      origin: [0, 0],
      perInline: [0, 25],
      perCrossline: [25, 0],
    },
    domain: 'twt',
    quantity: 'amplitude',
    unit: '',
    polarity: 'harder-positive',
    vertical: { first: 0, step: 4, count: SAMPLES },
    layouts: writer.layouts,
    statistics: statistics.finish(),
    traces: { live: INLINES * CROSSLINES, missing: 0, duplicate: 0 },
  };
}

/** A picture in grey, `[row][column]` from 0 to 255. */
export interface Shades {
  width: number;
  height: number;
  pixels: Uint8Array;
}

/** Traces of a plane as a picture, `[trace][sample]` turned upright, each sample two pixels wide. */
function shadesOf(data: Float32Array, signed: boolean): Shades {
  const sizes = [...data].filter((v) => !Number.isNaN(v)).sort((a, b) => Math.abs(a) - Math.abs(b));
  const end = Math.abs(sizes[Math.floor(0.98 * (sizes.length - 1))] ?? 1) || 1;
  const traces = data.length / SAMPLES;
  const pixels = new Uint8Array(2 * traces * SAMPLES).fill(244);
  for (let t = 0; t < traces; t++)
    for (let k = 0; k < SAMPLES; k++) {
      const v = data[t * SAMPLES + k];
      if (Number.isNaN(v)) continue;
      const part = signed ? 0.5 - v / (2 * end) : 1 - v / end;
      const shade = Math.round(20 + 225 * Math.max(0, Math.min(1, part)));
      pixels.fill(shade, k * 2 * traces + 2 * t, k * 2 * traces + 2 * t + 2);
    }
  return { width: 2 * traces, height: SAMPLES, pixels };
}

let made: Promise<{ store: Store; volume: Volume }> | null = null;

/**
 * The made-up section before and after a step as it is set to begin with; null where a step takes more than a volume of
 * amplitudes, or gives samples that do not lie on it.
 */
export async function beforeAndAfter(step: AnyStep): Promise<{ before: Shades; after: Shades } | null> {
  const roles = Object.entries(step.inputs).filter(([, spec]) => !(spec as InputSpec).optional);
  if (!step.local || step.local.domain || step.local.volumes.length !== 1 || roles.length !== 1) return null;
  made ??= (async () => {
    const store = memoryStore('Guide');
    return { store, volume: await madeUp(store) };
  })();
  const { store, volume } = await made;
  const [role] = step.local.volumes;
  const spec = step.inputs[role] as InputSpec;
  // one volume of amplitudes is no set of several, nor anything else
  if (spec.many || (spec.quantity && !spec.quantity.includes('amplitude'))) return null;
  const line = Math.floor(INLINES / 2);
  const optional = Object.entries(step.inputs).filter(([name]) => name !== role);
  const given = {
    [role]: volume,
    ...Object.fromEntries(optional.map(([name, s]) => [name, (s as InputSpec).many ? [] : undefined])),
  };
  const values = await tryOn(step, given, checkParams(step, {}), store, 'inline', line);
  const after = Object.values(values)[0];
  if (!after || after.length !== CROSSLINES * SAMPLES) return null;
  const quantity = step.local.outputs?.[Object.keys(step.outputs)[0]]?.quantity;
  const signed = !quantity || quantityFacts(quantity).symmetric;
  return { before: shadesOf(await readPlane(store, volume, 'inline', line), true), after: shadesOf(after, signed) };
}

/** A grey picture as an address that an image can have: a bitmap of 8 bits, its rows from the bottom up. */
export function imageAddress({ width, height, pixels }: Shades): string {
  const row = Math.ceil(width / 4) * 4;
  const out = Buffer.alloc(1078 + row * height);
  out.write('BM');
  out.writeUInt32LE(out.length, 2);
  out.writeUInt32LE(1078, 10);
  out.writeUInt32LE(40, 14);
  out.writeInt32LE(width, 18);
  out.writeInt32LE(height, 22);
  out.writeUInt16LE(1, 26);
  out.writeUInt16LE(8, 28);
  for (let n = 0; n < 256; n++) out.writeUInt32LE((n << 16) | (n << 8) | n, 54 + 4 * n);
  for (let y = 0; y < height; y++) out.set(pixels.subarray(y * width, (y + 1) * width), 1078 + (height - 1 - y) * row);
  return `data:image/bmp;base64,${out.toString('base64')}`;
}
