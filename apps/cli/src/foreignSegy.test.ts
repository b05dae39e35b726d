import type { SeismicLine, Store, Volume } from '@lithagon/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readPlane } from '../../../packages/core/src/storage/planes.ts';
import { uniform } from '../../../packages/core/src/testing/random.ts';
import {
  BYTES,
  exactValue,
  type MadeSegy,
  makeSegy,
  PLAIN_SEGY,
} from '../../../packages/core/src/testing/segyWriter.ts';
import { type Foreign, workplace } from './testing/foreign.ts';
import { GOOD } from './testing/good.ts';
import { expectOutcome } from './testing/outcome.ts';

const TWT = ['domain=twt', 'quantity=attribute'];
const PLACE: Partial<MadeSegy> = { origin: [499_000, 7_650_000] };
const even = (n: number) => Array.from({ length: n }, (_, k) => k);
const SPEC: MadeSegy = { ...PLAIN_SEGY, ...PLACE, format: 5 };
const TRACE = 240 + 4 * SPEC.samples;

type Change = (view: DataView, bytes: Uint8Array) => unknown;
/** A file, with its bytes changed by hand, or others put in their place. */
function made(spec: Partial<MadeSegy> = {}, change: Change = () => undefined): Uint8Array {
  const bytes = makeSegy({ ...SPEC, ...spec }, even);
  const other = change(new DataView(bytes.buffer), bytes);
  return other instanceof Uint8Array ? other : bytes;
}
const eachTrace = (view: DataView, set: (at: number, n: number) => void, trace = TRACE, start = 3600) => {
  for (let n = 0; start + n * trace < view.byteLength; n++) set(start + n * trace, n);
};
const ebcdic = (text: string) =>
  Uint8Array.from(text, (ch) => {
    const at = 'ABCDEFGHI'.indexOf(ch);
    if (at >= 0) return 0xc1 + at;
    const more = 'JKLMNOPQR'.indexOf(ch);
    if (more >= 0) return 0xd1 + more;
    const last = 'STUVWXYZ'.indexOf(ch);
    if (last >= 0) return 0xe2 + last;
    return /\d/.test(ch) ? 0xf0 + Number(ch) : 0x40;
  });

/** Every sample of a volume is what the writer put there. */
const whole =
  (spec: Partial<MadeSegy> = {}, place = true) =>
  async (objects: unknown[], store: Store) => {
    const { format, inlines, crosslines, samples, origin, perInline, perCrossline } = { ...SPEC, ...spec };
    const [volume] = objects as Volume[];
    expect(volume.kind).toBe('volume');
    const { binGrid } = volume;
    expect([binGrid.inline.count, binGrid.crossline.count]).toEqual([inlines.length, crosslines.length]);
    if (place) {
      const near = [binGrid.origin, binGrid.perInline, binGrid.perCrossline];
      [origin, perInline, perCrossline].forEach((wanted, n) => {
        expect(Math.abs(near[n][0] - wanted[0])).toBeLessThan(0.3);
        expect(Math.abs(near[n][1] - wanted[1])).toBeLessThan(0.3);
      });
    }
    for (let i = 0; i < inlines.length; i++) {
      const plane = await readPlane(store, volume, 'inline', i);
      for (let j = 0; j < crosslines.length; j++)
        for (let k = 0; k < samples; k++) expect(plane[j * samples + k]).toBe(Math.fround(exactValue(format, i, j, k)));
    }
  };

/** Files of every format and byte order, as their writers may choose them. */
function variants(): Foreign[] {
  const next = uniform(15);
  const pick = <T>(of: readonly T[]) => of[Math.floor(next() * of.length)];
  const formats = [1, 2, 3, 5, 6, 8, 10, 11, 16];
  return Array.from({ length: 18 }, (_, n) => {
    const format = formats[n % formats.length];
    const littleEndian = next() < 0.5;
    const revision = pick([0, 1, 2] as const);
    const lines = (first: number, step: number, count: number) =>
      Array.from({ length: count }, (__, k) => first + k * step);
    const spec: Partial<MadeSegy> = {
      format,
      littleEndian,
      revision,
      inlines: lines(100 + n, pick([1, 2, 4]), 8 + (n % 4)),
      crosslines: lines(2000, pick([1, 3]), 9 + (n % 3)),
      intervalUs: pick([1000, 2000, 4000]),
      bytes: pick([
        { inline: 189, crossline: 193, x: 181, y: 185 },
        { inline: 9, crossline: 21, x: 73, y: 77 },
        { inline: 221, crossline: 225, x: 201, y: 205 },
      ]),
      scalar: pick([1, -10, -100]),
      order: pick(['inline', 'crossline'] as const),
      perInline: pick([
        [0, 25],
        [-10, 20],
        [12.5, 0],
      ]) as [number, number],
      perCrossline: pick([
        [25, 0],
        [20, 10],
        [0, -12.5],
      ]) as [number, number],
      ascii: next() < 0.5,
      extended: revision === 0 ? 0 : pick([0, 1, 2]),
    };
    if (spec.perInline?.[1] === 0) spec.perCrossline = [0, -12.5];
    else if (spec.perCrossline?.[0] === 0) spec.perCrossline = [25, 0];
    return {
      file: `variant-${n}.sgy`,
      is: `format ${format}, ${littleEndian ? 'little' : 'big'}-endian, revision ${revision}`,
      // the major revision of revision 2 is a byte of its own, and does not turn round
      bytes: made(spec, (view) => {
        if (revision === 2 && n % 2 === 0) {
          view.setUint8(3500, 2);
          view.setUint8(3501, 0);
        }
      }),
      declare: TWT,
      holds: whole(spec),
    };
  });
}

/** Traces of a file sorted by shots, receivers or bins, as they are before stacking. */
function unstacked(kind: 'shots' | 'receivers' | 'bins', offsets = true): Uint8Array {
  const [groups, fold] = [12, 10];
  const out = new Uint8Array(3600 + groups * fold * TRACE);
  out.set(made().subarray(0, 3600));
  const view = new DataView(out.buffer);
  for (let g = 0; g < groups; g++)
    for (let f = 0; f < fold; f++) {
      const n = g * fold + f;
      const at = 3600 + n * TRACE;
      view.setInt32(at, n + 1);
      view.setInt32(at + 4, n + 1);
      view.setInt16(at + 70, 1);
      view.setInt16(at + 114, SPEC.samples);
      view.setInt16(at + 116, 4000);
      if (offsets) view.setInt32(at + 36, 100 + 50 * f);
      const place = [499_000 + 50 * g, 7_650_000];
      const other = [499_000 + 50 * g + 100 + 50 * f, 7_650_010];
      if (kind === 'bins') {
        view.setInt32(at + 20, 1000 + g);
        view.setInt32(at + 24, f + 1);
        view.setInt32(at + 188, 1 + (g % 3));
        view.setInt32(at + 192, 50 + Math.floor(g / 3));
        view.setInt32(at + 180, place[0]);
        view.setInt32(at + 184, place[1]);
        continue;
      }
      view.setInt32(at + 8, 500 + g);
      view.setInt32(at + 12, f + 1);
      const [source, receiver] = kind === 'shots' ? [place, other] : [other, place];
      [...source, ...receiver].forEach((v, k) => {
        view.setInt32(at + 72 + 4 * k, v);
      });
    }
  return out;
}

/** A file whose coordinates are angles, about 57.03° E and 21.2° S. */
function inAngles(unit: number, write: (degrees: number) => number, scalar: number): Uint8Array {
  return made({ inlines: even(12).map((n) => n + 1), crosslines: even(14).map((n) => n + 11) }, (view) =>
    eachTrace(view, (at, n) => {
      const [i, j] = [Math.floor(n / 14), n % 14];
      view.setInt16(at + 70, scalar);
      view.setInt16(at + 88, unit);
      const [x, y] = [57 + j * 0.001, -21.2 + i * 0.001];
      const scale = scalar < 0 ? -scalar : 1;
      [180, 72].forEach((byte) => {
        view.setInt32(at + byte, Math.round(write(x) * scale));
        view.setInt32(at + byte + 4, Math.round(write(y) * scale));
      });
    }),
  );
}
const dms = (degrees: number) => {
  const size = Math.abs(degrees) + 1e-9;
  const [d, m] = [Math.floor(size), Math.floor((size % 1) * 60)];
  return Math.sign(degrees) * (d * 1e4 + m * 100 + ((size % 1) * 60 - m) * 60);
};
const placedInDegrees = (objects: unknown[]) => {
  const [{ binGrid }] = objects as Volume[];
  // 57° E 21.2° S lies on the central meridian of UTM zone 40 S; a thousandth of a degree is 103.9 by 110.7 m there
  expect(binGrid.origin[0]).toBeCloseTo(500_000, -1);
  expect(Math.hypot(...binGrid.perCrossline)).toBeCloseTo(103.8, 0);
  expect(Math.hypot(...binGrid.perInline)).toBeCloseTo(110.7, 0);
};

const blank = (bytes: number[]) =>
  made({}, (view) =>
    eachTrace(view, (at) => {
      for (const b of bytes) view.setInt32(at + b - 1, 0);
    }),
  );
const PLACES = [73, 77, 81, 85, 181, 185];
const localGrid = (objects: unknown[]) => {
  expect((objects as Volume[])[0].binGrid.local).toBe(true);
};
const withBytes = (more: number, fill: (bytes: Uint8Array, from: number) => void) =>
  made({}, (_, bytes) => {
    const out = new Uint8Array(bytes.length + more);
    out.set(bytes);
    fill(out, bytes.length);
    return out;
  });
/** A text header between the binary header and the traces. */
const withText = (texts: Uint8Array[], change: Change = () => undefined) =>
  made({ revision: 0 }, (_, bytes) => {
    const out = new Uint8Array(bytes.length + 3200 * texts.length);
    out.set(bytes.subarray(0, 3600));
    texts.forEach((text, n) => {
      out.fill(0x40, 3600 + 3200 * n, 6800 + 3200 * n);
      out.set(text.subarray(0, 3200), 3600 + 3200 * n);
    });
    out.set(bytes.subarray(3600), 3600 + 3200 * texts.length);
    change(new DataView(out.buffer), out);
    return out;
  });
const noise = (length: number, seed = 7) => {
  const next = uniform(seed);
  return Uint8Array.from({ length }, () => Math.floor(next() * 256));
};

const FILES: Foreign[] = [
  ...variants(),
  {
    file: 'twos.sgy',
    is: 'revision 2, little-endian, 32-bit integers, traces shuffled',
    bytes: makeSegy({ ...SPEC, format: 2, littleEndian: true, revision: 2, order: 'shuffled' }, (n) =>
      even(n).reverse(),
    ),
    declare: TWT,
    holds: whole({ format: 2 }),
  },
  {
    file: 'scalar.sgy',
    is: 'a first trace with scalar 0',
    bytes: made({ scalar: -100 }, (view) => view.setInt16(3600 + 70, 0)),
    declare: TWT,
    holds: whole(),
    says: /1 trace gives no scalar for coordinates; that of the others \(-100\) was taken/,
  },
  {
    file: 'scalars.sgy',
    is: 'every third trace with scalar 0',
    bytes: made({ scalar: -100 }, (view) => eachTrace(view, (at, n) => n % 3 === 0 && view.setInt16(at + 70, 0))),
    declare: TWT,
    holds: whole(),
    says: /14 traces give no scalar/,
  },
  {
    file: 'own-scalars.sgy',
    is: 'half of the traces in centimetres, half in decimetres',
    bytes: made({ scalar: -100 }, (view) =>
      eachTrace(view, (at, n) => {
        if (n % 2 === 0) return;
        view.setInt16(at + 70, -10);
        for (const byte of [180, 184]) view.setInt32(at + byte, view.getInt32(at + byte) / 10);
      }),
    ),
    declare: TWT,
    holds: whole(),
    says: /Scalars for coordinates differ from trace to trace/,
  },
  {
    file: 'no-scalar.sgy',
    is: 'centimetres without a scalar',
    bytes: made({ scalar: -100 }, (view) => eachTrace(view, (at) => view.setInt16(at + 70, 0))),
    asks: ['scalar'],
    declare: TWT,
    says: /Its bins are 2500 × 2500/,
  },
  {
    file: 'told-scalar.sgy',
    is: 'centimetres without a scalar, which is told',
    bytes: made({ scalar: -100 }, (view) => eachTrace(view, (at) => view.setInt16(at + 70, 0))),
    declare: [...TWT, 'scalar=-100'],
    holds: whole(),
  },
  {
    file: 'padded.sgy',
    is: 'eight traces of padding at its end',
    bytes: withBytes(8 * TRACE, (bytes, from) => {
      for (let n = 0; n < 8; n++) new DataView(bytes.buffer).setUint16(from + n * TRACE + 114, SPEC.samples);
    }),
    declare: TWT,
    holds: whole(),
    says: /8 traces have no number and no position/,
  },
  {
    file: 'padded-before.sgy',
    is: 'padding before its first trace',
    bytes: made({}, (_, bytes) => {
      const out = new Uint8Array(bytes.length + 3 * TRACE);
      out.set(bytes.subarray(0, 3600));
      out.set(bytes.subarray(3600), 3600 + 3 * TRACE);
      for (let n = 0; n < 3; n++) {
        new DataView(out.buffer).setUint16(3600 + n * TRACE + 114, SPEC.samples);
        new DataView(out.buffer).setUint16(3600 + n * TRACE + 116, 4000);
      }
      return out;
    }),
    declare: TWT,
    holds: whole(),
    says: /3 traces have no number and no position/,
  },
  {
    file: 'numbers-only.sgy',
    is: 'line numbers and no coordinates',
    bytes: blank(PLACES),
    declare: TWT,
    holds: async (objects, store) => {
      localGrid(objects);
      await whole({}, false)(objects, store);
    },
    says: /It has no coordinates: it lies on a grid of its own/,
  },
  {
    file: 'numbers-bins.sgy',
    is: 'line numbers and no coordinates, with the size of its bins told',
    bytes: blank(PLACES),
    declare: [...TWT, 'bins=12.5x50'],
    holds: (objects) => {
      const [{ binGrid }] = objects as Volume[];
      expect(binGrid).toMatchObject({ local: true, perInline: [0, 12.5], perCrossline: [50, 0] });
    },
    says: /bins of 12\.50 × 50\.00/,
  },
  {
    file: 'numbers-placed.sgy',
    is: 'line numbers and no coordinates, numbered as a volume that is there',
    bytes: blank(PLACES),
    declare: [...TWT, 'grid=cube'],
    holds: whole(),
    says: /placed by its line numbers on the grid of cube|until it is placed on the map/,
  },
  {
    file: 'nothing.sgy',
    is: 'neither numbers nor coordinates',
    bytes: blank([...PLACES, 1, 5, 9, 13, 17, 21, 25, 189, 193, 197]),
    declare: TWT,
    asks: ['lineTraces'],
    refused: /neither line numbers nor coordinates/,
  },
  {
    file: 'counted.sgy',
    is: 'neither numbers nor coordinates, with the length of a line told',
    bytes: blank([...PLACES, 1, 5, 9, 13, 17, 21, 25, 189, 193, 197]),
    declare: [...TWT, 'lineTraces=7'],
    holds: async (objects, store) => {
      localGrid(objects);
      await whole({}, false)(objects, store);
    },
    says: /grid of its own/,
  },
  {
    file: 'miscounted.sgy',
    is: 'a line longer than the file',
    bytes: blank([...PLACES, 189, 193]),
    declare: [...TWT, 'lineTraces=100'],
    refused: /“100” is no number of traces in an inline/,
  },
  {
    file: 'shots.sgy',
    is: 'shot records',
    bytes: unstacked('shots'),
    declare: TWT,
    refused: /shot records of about 10 traces.*not stacked/,
  },
  {
    file: 'receivers.sgy',
    is: 'receiver gathers',
    bytes: unstacked('receivers'),
    declare: TWT,
    refused: /receiver gathers of about 10 traces/,
  },
  {
    file: 'gathers.sgy',
    is: 'gathers by bin',
    bytes: unstacked('bins'),
    declare: TWT,
    refused: /gathers of about 10 traces with offsets from 100 to 550/,
  },
  {
    file: 'numbered-gathers.sgy',
    is: 'gathers without offsets',
    bytes: unstacked('bins', false),
    declare: TWT,
    refused: /gathers of about 10 traces/,
  },
  {
    file: 'more-text.sgy',
    is: 'revision 0 with a text header more than it can say',
    bytes: withText([ebcdic('C41 PROCESSING HISTORY')]),
    declare: TWT,
    holds: whole(),
    says: /1 more text header follows the binary header/,
  },
  {
    file: 'more-texts.sgy',
    is: 'revision 0 with two text headers more',
    bytes: withText([ebcdic('C41 PROCESSING'), ebcdic('C81 MORE OF IT')]),
    declare: TWT,
    holds: whole(),
    says: /2 more text headers follow/,
  },
  {
    file: 'seconds.sgy',
    is: 'seconds of arc',
    bytes: inAngles(2, (d) => d * 3600, -100),
    declare: TWT,
    holds: placedInDegrees,
    says: /Converted/,
  },
  {
    file: 'degrees.sgy',
    is: 'decimal degrees',
    bytes: inAngles(3, (d) => d, -10000),
    declare: TWT,
    holds: placedInDegrees,
    says: /Converted/,
  },
  {
    file: 'dms.sgy',
    is: 'degrees, minutes and seconds',
    bytes: inAngles(4, dms, -100),
    declare: TWT,
    holds: placedInDegrees,
    says: /Converted/,
  },
  {
    file: 'no-angles.sgy',
    is: 'metres that are said to be seconds of arc',
    bytes: made({}, (view) => eachTrace(view, (at) => view.setInt16(at + 88, 2))),
    declare: TWT,
    holds: whole(),
    says: /coordinates are angles, but .* is none/,
  },
  { file: 'stack', is: 'no extension, EBCDIC', bytes: made(), declare: TWT, holds: whole() },
  {
    file: 'stack.dat',
    is: 'an extension of tables, a text header of ASCII',
    bytes: made({ ascii: true }),
    declare: TWT,
    holds: whole(),
  },
  {
    file: 'stack.las',
    is: 'the extension of another kind',
    bytes: made({ ascii: true, littleEndian: true }),
    declare: TWT,
    holds: whole(),
  },
  {
    file: 'noise.bin',
    is: 'bytes at random',
    bytes: noise(20_000),
    declare: TWT,
    refused: /is of no kind that is known/,
  },
  {
    file: 'noise.sgy',
    is: 'bytes at random that claim to be SEG-Y',
    bytes: noise(20_000, 9),
    declare: TWT,
    refused: /sample format|cannot be read as SEG-Y|no byte positions/,
  },
  {
    file: 'names.dbf',
    is: 'a dBASE table',
    bytes: (() => {
      const out = new Uint8Array(4000);
      out.set([3, 126, 11, 28, 20, 0, 0, 0, 65, 0, 40, 0]);
      return out;
    })(),
    declare: TWT,
    refused: /is a dBASE table/,
  },
  {
    file: 'notes.sgy',
    is: 'a text that claims to be SEG-Y',
    bytes: 'Survey notes.\n'.repeat(600),
    declare: TWT,
    refused: /cannot be read as SEG-Y/,
  },
  { file: 'empty.sgy', is: 'nothing', bytes: new Uint8Array(), declare: TWT, refused: /it is empty/ },
  {
    file: 'heads.sgy',
    is: 'headers and no trace',
    bytes: made().subarray(0, 3600),
    declare: TWT,
    refused: /only 3600 bytes long/,
  },
  { file: 'stub.sgy', is: 'a part of one trace', bytes: made().subarray(0, 3900), declare: TWT, refused: /cut short/ },
  {
    file: 'cut.sgy',
    is: 'its last trace cut short',
    bytes: made().subarray(0, 3600 + 42 * TRACE - 50),
    declare: TWT,
    says: /The last trace is cut short/,
  },
  {
    file: 'no-interval.sgy',
    is: 'no sample interval',
    bytes: made({ intervalUs: 0 }),
    declare: TWT,
    asks: ['interval'],
    refused: /does not say its sample interval/,
  },
  {
    file: 'told-interval.sgy',
    is: 'no sample interval, which is told',
    bytes: made({ intervalUs: 0 }),
    declare: [...TWT, 'interval=2'],
    holds: (objects) => expect((objects as Volume[])[0].vertical.step).toBe(2),
  },
  {
    file: 'backwards.sgy',
    is: 'a negative interval',
    bytes: made({ intervalUs: -4000 }),
    declare: TWT,
    holds: whole(),
    says: /-4000 µs, which was taken for 4000/,
  },
  {
    file: 'format-4.sgy',
    is: 'a sample format that nothing reads',
    bytes: made({}, (view) => view.setInt16(3224, 4)),
    declare: TWT,
    refused: /sample format 4/,
  },
  {
    file: 'miscount.sgy',
    is: 'another number of samples in its binary header than in its traces',
    bytes: made({}, (view) => view.setInt16(3220, 77)),
    declare: TWT,
    holds: whole(),
    says: /The binary header says 77 samples a trace; the traces themselves say 30/,
  },
  {
    file: 'no-count.sgy',
    is: 'no number of samples anywhere',
    bytes: made({}, (view) => {
      view.setInt16(3220, 0);
      eachTrace(view, (at) => view.setInt16(at + 114, 0));
    }),
    declare: TWT,
    refused: /how many samples a trace has/,
  },
  {
    file: 'wild.sgy',
    is: 'one wild line number',
    bytes: made({}, (view) => view.setInt32(3600 + 5 * TRACE + 188, 2e9)),
    declare: TWT,
    says: /1 trace has a line number far from all others/,
  },
  {
    file: 'twice.sgy',
    is: 'three bins twice',
    bytes: made({ twice: new Set([3, 9, 20]) }),
    declare: TWT,
    holds: whole(),
    says: /3 traces share a bin/,
  },
  {
    file: 'gaps.sgy',
    is: 'four bins without a trace',
    bytes: made({ missing: new Set([0, 9, 20, 41]) }),
    declare: TWT,
    says: /4 of 42 bins have no trace/,
  },
  {
    file: 'late.sgy',
    is: 'traces that begin at different times',
    bytes: made({}, (view) => eachTrace(view, (at, n) => view.setInt16(at + 108, n % 2 ? 40 : 0))),
    declare: TWT,
    says: /Traces start at different times, from 0 to 40 ms/,
  },
  {
    file: 'above.sgy',
    is: 'a first sample above the datum',
    bytes: made({ delayMs: -100 }),
    declare: TWT,
    holds: (objects) => expect((objects as Volume[])[0].vertical.first).toBe(-100),
  },
  {
    file: 'infinite.sgy',
    is: 'infinite samples',
    bytes: made({}, (view) => eachTrace(view, (at) => view.setFloat32(at + 240, Number.POSITIVE_INFINITY))),
    declare: TWT,
    holds: (objects) => expect(Number.isFinite((objects as Volume[])[0].statistics.rms)).toBe(true),
  },
  {
    file: 'claims-text.sgy',
    is: 'more text headers than there is room for',
    bytes: made({}, (view) => view.setInt16(3504, 4000)),
    declare: TWT,
    holds: whole(),
    says: /more text headers follow/,
  },
  {
    file: 'pairs.sgy',
    is: 'bytes swapped in pairs',
    bytes: made({ revision: 2 }, (_, bytes) => {
      for (let n = 3200; n < bytes.length; n += 2) [bytes[n], bytes[n + 1]] = [bytes[n + 1], bytes[n]];
    }),
    declare: TWT,
    refused: /swapped in pairs/,
  },
  {
    file: 'feet.sgy',
    is: 'coordinates in feet',
    bytes: made({ scalar: -10 }, (view) => {
      view.setInt16(3254, 2);
      eachTrace(view, (at) => {
        for (const byte of [180, 184]) view.setInt32(at + byte, Math.round(view.getInt32(at + byte) / 0.3048));
      });
    }),
    declare: TWT,
    holds: whole(),
    says: /in feet and were converted/,
  },
  {
    file: 'far.sgy',
    is: 'another part of the world',
    bytes: made({ origin: [200_000, 1_000_000] }),
    declare: TWT,
    says: undefined,
  },
  {
    file: 'line.sgy',
    is: 'one line of traces',
    bytes: made({ inlines: [7], crosslines: even(60).map((n) => n + 1) }, (view) =>
      eachTrace(view, (at, n) => view.setInt32(at + 20, n + 1)),
    ),
    declare: TWT,
    holds: (objects) => {
      const [line] = objects as SeismicLine[];
      expect(line.kind).toBe('seismic line');
      expect(line.path[1][0] - line.path[0][0]).toBeCloseTo(25, 1);
    },
  },
  {
    file: 'undeclared.sgy',
    is: 'a good file of which nothing is declared',
    bytes: made(),
    asks: ['domain', 'quantity'],
    refused: /no one has declared it/,
  },
  {
    file: 'velocities.sgy',
    is: 'amplitudes that are declared velocities',
    bytes: made(),
    declare: ['domain=twt', 'quantity=interval velocity'],
    asks: [],
    refused: /was declared interval velocity, but its samples run/,
  },
  {
    file: 'packed.sgy.gz',
    is: 'a gzip file',
    bytes: Uint8Array.from([0x1f, 0x8b, 8, 0, ...noise(5000)]),
    declare: TWT,
    refused: /is a gzip file.*Unpack it first/s,
  },
  {
    file: 'raw.segd',
    is: 'a field record',
    bytes: (() => {
      const out = noise(6000, 3);
      out.set([0x01, 0x23, 0x80, 0x58]);
      return out;
    })(),
    declare: TWT,
    refused: /is a SEG-D field record/,
  },
];

describe('SEG-Y files of others', () => {
  let place: Awaited<ReturnType<typeof workplace>>;
  beforeAll(async () => {
    place = await workplace(GOOD);
  });
  afterAll(() => place.clear());
  test('there are sixty and more', () => {
    expect(FILES.length).toBeGreaterThanOrEqual(60);
    expect(Object.keys(BYTES).length).toBe(9);
  });
  test.each(FILES.map((f) => [f.file, f.is, f] as const))('%s: %s', async (_, __, given) => {
    expectOutcome(given, await place.give(given));
  });
});
