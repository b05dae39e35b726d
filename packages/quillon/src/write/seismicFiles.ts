import { join } from 'node:path';
import type { Field } from '../model/field.ts';
import { SURVEY, toMap, uOf, vOf } from '../model/survey.ts';
import { meanOf } from '../seismic/image.ts';
import { CDP_M, type Imaged, imageLine, LINES } from '../seismic/survey.ts';
import { velocitiesOf } from '../seismic/velocities.ts';
import { ANGLES } from '../seismic/wavelet.ts';
import { type SegyLayout, type TraceHead, writeSegy } from './segy.ts';

const USUAL = { inline: 189, crossline: 193, x: 181, y: 185 };

/** What a file needs to have declared, since it cannot say so itself. */
export interface Declared {
  file: string;
  kind: string;
  what: string;
  declare: Record<string, string>;
}

function text(title: string, layout: Omit<SegyLayout, 'text'>, more: string[] = []): string[] {
  return [
    'QUILLON FIELD, OSMUND SHELF: MADE-UP DATA',
    title,
    'SURVEY: QUILLON 3D   BIN 25 M X 25 M   INLINES 1000-1159   CROSSLINES 2000-2199',
    'COORDINATES: WGS 84 / UTM ZONE 40S (EPSG:32740), METRES',
    'DATUM: MEAN SEA LEVEL   TIME: TWO-WAY, MS   FIRST SAMPLE 0 MS',
    `SAMPLES PER TRACE ${layout.samples}   SAMPLE INTERVAL ${layout.sampleMs} MS`,
    `INLINE BYTES ${layout.inline}-${layout.inline + 3}   CROSSLINE BYTES ${layout.crossline}-${layout.crossline + 3}`,
    `X BYTES ${layout.x}-${layout.x + 3}   Y BYTES ${layout.y}-${layout.y + 3}   SCALAR BYTES 71-72`,
    ...more,
  ];
}

export function headsOf(imaged: Imaged): TraceHead[] {
  const { extent } = imaged;
  return Array.from({ length: extent.inlines * extent.crosslines }, (_, n) => {
    const inline = extent.inline0 + Math.floor(n / extent.crosslines);
    const crossline = extent.crossline0 + (n % extent.crosslines);
    const [x, y] = toMap(uOf(crossline), vOf(inline));
    return { inline, crossline, x, y };
  });
}

const amplitude = { domain: 'twt', quantity: 'amplitude', polarity: 'harder-positive' };

/** Write the stacks: the same survey in four layouts, as surveys of different ages and contractors come. */
export function writeStacks(dir: string, imaged: Imaged): Declared[] {
  const heads = headsOf(imaged);
  const ns = SURVEY.samples;
  const base = { sampleMs: SURVEY.sampleMs, samples: ns, scalar: -100 };
  const polarity = ['POLARITY: INCREASE OF IMPEDANCE IS A POSITIVE NUMBER'];
  const copy = (data: Float32Array, order?: Uint32Array) => (n: number, out: Float32Array) =>
    out.set(data.subarray((order ? order[n] : n) * ns, ((order ? order[n] : n) + 1) * ns));
  const files: Declared[] = [];
  const put = (
    file: string,
    what: string,
    layout: Omit<SegyLayout, 'text'>,
    data: Float32Array,
    order?: Uint32Array,
  ) => {
    const ordered = order ? Array.from(order, (n) => heads[n]) : heads;
    writeSegy(
      join(dir, file),
      { ...layout, text: text(what.toUpperCase(), layout, polarity) },
      ordered,
      copy(data, order),
    );
    files.push({ file, kind: 'seismic volume', what, declare: amplitude });
  };
  const full = meanOf(imaged.stacks);
  const angle = (n: number) => `${ANGLES[n].fromDeg}-${ANGLES[n].toDeg} degrees`;
  put(
    'quillon-full.sgy',
    'Full stack, 5-35 degrees',
    { ...base, ...USUAL, format: 1, littleEndian: false, revision: 1 },
    full,
  );
  put(
    'quillon-near.sgy',
    `Near stack, ${angle(0)}`,
    { ...base, inline: 9, crossline: 21, x: 73, y: 77, format: 1, littleEndian: false, revision: 0, scalar: -10 },
    imaged.stacks[0],
  );
  // crossline by crossline, with a few traces missing and a few written twice
  const { inlines, crosslines } = imaged.extent;
  const order: number[] = [];
  for (let j = 0; j < crosslines; j++)
    for (let i = 0; i < inlines; i++) {
      const n = i * crosslines + j;
      if (n % 4801 === 17) continue;
      order.push(n);
      if (n % 7919 === 5) order.push(n);
    }
  put(
    'quillon-mid.sgy',
    `Mid stack, ${angle(1)}`,
    { ...base, ...USUAL, format: 5, littleEndian: true, revision: 2 },
    imaged.stacks[1],
    Uint32Array.from(order),
  );
  put(
    'quillon-far.sgy',
    `Far stack, ${angle(2)}, 16-bit`,
    { ...base, ...USUAL, format: 3, littleEndian: false, revision: 1, sampleScale: 1 },
    imaged.stacks[2],
  );
  return files;
}

/** Interval and stacking velocities on a coarse grid, IEEE floats. */
export function writeVelocities(dir: string, field: Field, imaged: Imaged): Declared[] {
  const grid = velocitiesOf(field, imaged.extent);
  const layout = {
    ...USUAL,
    format: 5 as const,
    littleEndian: false,
    revision: 1 as const,
    scalar: -100,
    sampleMs: grid.sampleMs,
    samples: grid.samples,
  };
  const heads: TraceHead[] = [];
  for (const inline of grid.inlines)
    for (const crossline of grid.crosslines) {
      const [x, y] = toMap(uOf(crossline), vOf(inline));
      heads.push({ inline, crossline, x, y });
    }
  return (['interval', 'stacking'] as const).map((which) => {
    const file = `velocity-${which}.sgy`;
    const what = `${which === 'interval' ? 'Interval' : 'Stacking'} velocity, m/s`;
    writeSegy(join(dir, file), { ...layout, text: text(what.toUpperCase(), layout) }, heads, (n, out) =>
      out.set(grid[which].subarray(n * grid.samples, (n + 1) * grid.samples)),
    );
    return {
      file,
      kind: 'seismic volume',
      what,
      declare: { domain: 'twt', quantity: `${which} velocity`, unit: 'm/s' },
    };
  });
}

export async function writeLines(dir: string, field: Field): Promise<Declared[]> {
  const files: Declared[] = [];
  for (const line of LINES) {
    const imaged = await imageLine(field, line);
    const layout = {
      ...USUAL,
      format: 5 as const,
      littleEndian: false,
      revision: 1 as const,
      scalar: -10,
      sampleMs: SURVEY.sampleMs,
      samples: SURVEY.samples,
    };
    const heads = Array.from({ length: imaged.places.length / 2 }, (_, n) => {
      const [x, y] = toMap(imaged.places[2 * n], imaged.places[2 * n + 1]);
      return { inline: 0, crossline: 0, x, y, cdp: 100 + n, shotpoint: 1000 + Math.floor(n / 2) };
    });
    const file = `${line.name}.sgy`;
    const more = [`LINE ${line.name}   CDP EVERY ${CDP_M} M IN BYTES 21-24   SHOTPOINT IN BYTES 197-200`];
    writeSegy(join(dir, file), { ...layout, text: text('2D LINE, FULL STACK', layout, more) }, heads, (n, out) =>
      out.set(imaged.data.subarray(n * SURVEY.samples, (n + 1) * SURVEY.samples)),
    );
    files.push({ file, kind: 'seismic line', what: `2D line ${line.name}, full stack`, declare: amplitude });
  }
  return files;
}
