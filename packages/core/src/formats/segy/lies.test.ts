import { describe, expect, test } from 'vitest';
import type { Volume } from '../../earth/objects.ts';
import { inspectFile } from '../../files/inspect.ts';
import { loadFile } from '../../files/load.ts';
import { memoryStore } from '../../storage/memory.ts';
import { readPlane } from '../../storage/planes.ts';
import { readProject, writtenProject } from '../../storage/projectFile.ts';
import { fileContext } from '../../testing/field.ts';
import { type MadeSegy, makeSegy, PLAIN_SEGY } from '../../testing/segyWriter.ts';
import { memorySource } from '../source.ts';

const SPEC: MadeSegy = { ...PLAIN_SEGY, format: 5 };
const even = (n: number) => Array.from({ length: n }, (_, k) => k);
const TRACE = 240 + 4 * SPEC.samples;
const DECLARE = { domain: 'twt', quantity: 'attribute' };

/** A file whose headers are changed by hand. */
function lying(change: (view: DataView, bytes: Uint8Array) => unknown, spec: Partial<MadeSegy> = {}) {
  const bytes = makeSegy({ ...SPEC, ...spec }, even);
  const other = change(new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength), bytes);
  return other instanceof Uint8Array ? other : bytes;
}
const eachTrace = (view: DataView, set: (at: number, n: number) => void) => {
  for (let n = 0; 3600 + n * TRACE < view.byteLength; n++) set(3600 + n * TRACE, n);
};

/** Load a file beside a volume that is there already; whatever comes of it, the project opens anew and is whole. */
async function loaded(bytes: Uint8Array, declare: Record<string, string> = {}) {
  const store = memoryStore();
  await loadFile(memorySource('good.sgy', makeSegy(SPEC, even)), { ...DECLARE, name: 'Good' }, fileContext(store));
  const before = JSON.stringify(await store.list());
  const report = await inspectFile(memorySource('lies.sgy', bytes), { ...DECLARE, ...declare });
  let error: Error | null = null;
  try {
    await loadFile(memorySource('lies.sgy', bytes), { ...DECLARE, ...declare }, fileContext(store));
  } catch (cause) {
    error = cause as Error;
  }
  const objects = await store.list();
  const opened = readProject(
    JSON.parse(writtenProject({ facts: await store.facts(), objects, ledger: await store.ledger(), aside: [] })),
  );
  expect(opened?.aside).toEqual([]);
  expect(opened?.objects).toEqual(JSON.parse(JSON.stringify(objects)));
  const [good] = objects.filter((o): o is Volume => o.name === 'Good');
  expect((await readPlane(store, good, 'inline', 0)).length).toBeGreaterThan(0);
  const made = objects.find((o): o is Volume => o.name === 'lies');
  if (!made) expect(JSON.stringify(objects)).toBe(before);
  return { store, report, error, volume: made, says: report.problems.join(' ') };
}

describe('headers that lie about the sample interval', () => {
  const withInterval = (us: number, inTrace = us) =>
    lying((view) => {
      view.setInt16(3216, us);
      eachTrace(view, (at) => view.setInt16(at + 116, inTrace));
    });
  test('by naming none: refused until it is declared, and asked for', async () => {
    const { error, report } = await loaded(withInterval(0));
    expect(error).toMatchObject({ code: 'undeclared', object: 'lies.sgy' });
    expect(error?.message).toContain('lies.sgy does not say its sample interval');
    expect(report.questions.map((q) => q.key)).toContain('interval');
    const { volume } = await loaded(withInterval(0), { interval: '4' });
    expect(volume?.vertical.step).toBe(4);
    for (const interval of ['0', '-4', 'four', '1e9', 'NaN', 'Infinity'])
      expect((await loaded(withInterval(0), { interval })).error?.message).toContain('is no sample interval');
  });
  test('by naming a negative one: taken as positive, and said', async () => {
    const { volume, says } = await loaded(withInterval(-4000));
    expect(volume?.vertical.step).toBe(4);
    expect(says).toContain('a sample interval of -4000 µs, which was taken for 4000 µs');
  });
  test('in the binary header alone: the traces are believed, and it is said', async () => {
    const { volume, says } = await loaded(withInterval(0, 2000));
    expect(volume?.vertical.step).toBe(2);
    expect(says).toContain('the first trace says 2000 µs');
  });
  test('by an exact interval that is none, as revision 2 has room for', async () => {
    for (const wrong of [Number.NaN, Number.POSITIVE_INFINITY, -4, 0, 1e300]) {
      const { volume } = await loaded(lying((view) => view.setFloat64(3272, wrong), { revision: 2 }));
      expect(volume?.vertical.step, String(wrong)).toBe(4);
    }
  });
});

describe('headers that lie about text headers', () => {
  test.each([32767, 4000, -1, -32768])('%i more of them, for which there is no room or no end', async (count) => {
    const { volume, says, error } = await loaded(lying((view) => view.setInt16(3504, count)));
    expect(error).toBeNull();
    expect(says).toMatch(/more text headers follow.*the traces were taken to begin at once/);
    expect(volume?.traces.live).toBe(42);
  });
  test('without end in a large file: a few megabytes are looked through, no more', async () => {
    const bytes = lying((view) => view.setInt16(3504, -1));
    const read: number[] = [];
    const size = 8e9;
    const source = {
      name: 'large.sgy',
      size,
      read: async (offset: number, length: number) => {
        read.push(length);
        // as a disk does, it lets others go on
        await new Promise(setImmediate);
        const out = new Uint8Array(Math.max(0, Math.min(length, size - offset)));
        out.set(bytes.subarray(offset, offset + length).subarray(0, out.length));
        return out;
      },
    };
    await inspectFile(source, DECLARE, { signal: AbortSignal.timeout(1000) }).catch(() => undefined);
    expect(Math.max(...read)).toBeLessThan(10e6);
  });
});

describe('headers that lie about traces', () => {
  test('one wild inline number: the trace is left out, and it is said', async () => {
    for (const wild of [2 ** 31 - 1, -(2 ** 31), 1e6]) {
      const bytes = lying((view) => view.setInt32(3600 + 5 * TRACE + 188, wild));
      const { volume, says } = await loaded(bytes);
      expect(volume?.binGrid.inline).toEqual({ first: 1, step: 1, count: 6 });
      expect(volume?.traces).toMatchObject({ live: 41, missing: 1 });
      expect(says).toContain('1 trace has a line number far from all others and was left out.');
    }
  });
  test('padding without a number anywhere: left out, and said', async () => {
    const whole = makeSegy(SPEC, even);
    const padded = new Uint8Array(whole.length + 8 * TRACE);
    padded.set(whole);
    for (let n = 0; n < 8; n++) new DataView(padded.buffer).setUint16(whole.length + n * TRACE + 114, SPEC.samples);
    const { volume, says, report } = await loaded(padded);
    expect(report.takenFor).toBe('3D seismic volume');
    expect(volume?.traces).toMatchObject({ live: 42, missing: 0, duplicate: 0 });
    expect(says).toContain('8 traces have no number and no position anywhere');
  });
  test('bytes after the end, and a last trace cut short: said', async () => {
    for (const more of [1, 100, TRACE - 1]) {
      const bytes = lying((_, whole) => {
        const out = new Uint8Array(whole.length + more).fill(77);
        out.set(whole);
        return out;
      });
      const { volume, says } = await loaded(bytes);
      expect(volume?.traces.live).toBe(42);
      expect(says).toContain(`${more} bytes of it are there`);
    }
  });
  test('samples that are infinite or no numbers: kept, said, and out of the statistics', async () => {
    const bytes = lying((view) =>
      eachTrace(view, (at, n) => {
        view.setFloat32(at + 240, n % 3 === 0 ? Number.POSITIVE_INFINITY : Number.NEGATIVE_INFINITY);
        view.setFloat32(at + 244, Number.NaN);
      }),
    );
    const { volume, says, error } = await loaded(bytes);
    expect(error).toBeNull();
    for (const value of Object.values(volume?.statistics ?? {}).filter((v) => typeof v === 'number'))
      expect(Number.isFinite(value)).toBe(true);
    expect([says, ...(volume?.madeBy.warnings ?? [])].join(' ')).toMatch(/infinite/);
  });
  test('nothing but infinite samples, and nothing but empty ones', async () => {
    for (const value of [Number.POSITIVE_INFINITY, Number.NaN]) {
      const bytes = lying((view) =>
        eachTrace(view, (at) => {
          for (let k = 0; k < SPEC.samples; k++) view.setFloat32(at + 240 + 4 * k, value);
        }),
      );
      const { volume, error } = await loaded(bytes);
      expect(Boolean(volume) || /lies\.sgy/.test(error?.message ?? '')).toBe(true);
      for (const storage of ['compact'])
        expect((await loaded(bytes, { storage })).error?.message ?? 'kept').toMatch(/lies\.sgy|kept/);
    }
  });
  test('every field of the binary header at its ends: loaded, or refused by name', async () => {
    for (let byte = 3200; byte < 3520; byte += byte === 3258 ? 242 : 2)
      for (const value of [-1, 1, 32767]) {
        const { error, volume } = await loaded(lying((view) => view.setInt16(byte, value)));
        expect(Boolean(volume) || /lies\.sgy/.test(error?.message ?? ''), `${byte} ${value}: ${error?.message}`).toBe(
          true,
        );
        expect(error?.message ?? '').not.toContain('not foreseen');
      }
  });
});
