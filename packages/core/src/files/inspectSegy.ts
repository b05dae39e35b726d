import { LithagonError } from '../earth/errors.ts';
import { cornersOf, type Lattice } from '../earth/lattice.ts';
import { QUANTITIES } from '../earth/units.ts';
import { readHeaders, type SegyHeaders } from '../formats/segy/headers.ts';
import { formatName } from '../formats/segy/load.ts';
import { type Positions, rankPositions, sampleHeaders } from '../formats/segy/positions.ts';
import { decodeSamples } from '../formats/segy/samples.ts';
import { indexTraces, type TraceIndex } from '../formats/segy/traces.ts';
import type { ByteSource } from '../formats/source.ts';
import type { Declarations, FileReport, Question } from './report.ts';

/** Positions that were declared, over those that were found. */
export function declaredPositions(found: Positions | undefined, declare: Declarations): Positions | null {
  const of = (key: keyof Positions) => {
    const text = declare[`byte.${key}`];
    return text === undefined ? found?.[key] : Number(text);
  };
  const [inline, crossline, x, y] = [of('inline'), of('crossline'), of('x'), of('y')];
  if (!inline || !crossline || !x || !y) return null;
  for (const p of [inline, crossline, x, y])
    if (!Number.isInteger(p) || p < 1 || p > 237)
      throw new LithagonError('declare', `A byte position must be a whole number from 1 to 237, not “${p}”.`, {
        fix: 'Trace headers are 240 bytes long.',
      });
  return { inline, crossline, x, y };
}

export function questionsFor(stats: { min: number; negative: number; median: number }): Question[] {
  const velocity = stats.negative === 0 && stats.min > 300 && stats.median > 1000 && stats.median < 7000;
  return [
    {
      key: 'domain',
      label: 'Vertical axis',
      options: [
        { value: 'twt', label: 'Two-way time' },
        { value: 'depth', label: 'Depth' },
      ],
    },
    {
      key: 'quantity',
      label: 'Samples are',
      options: Object.keys(QUANTITIES).map((value) => ({ value, label: value })),
      hint: velocity
        ? {
            value: 'interval velocity',
            why: `No sample is negative and half lie above ${stats.median.toFixed(0)}: they look like velocities.`,
          }
        : stats.negative > 0.2
          ? { value: 'amplitude', why: 'Samples swing about zero, as amplitudes do.' }
          : undefined,
    },
  ];
}

/** Read one line of traces from the middle of the file as a picture of what is in it. */
async function sampleSection(source: ByteSource, headers: SegyHeaders, index: TraceIndex) {
  const { inline, crossline } = index.lattice;
  const nj = crossline.count;
  const nk = headers.samples;
  const i = Math.floor(inline.count / 2);
  const every = Math.max(1, Math.ceil(nj / 300));
  const traces = Math.ceil(nj / every);
  const data = new Float32Array(traces * nk).fill(Number.NaN);
  for (let n = 0; n < traces; n++) {
    const trace = index.traceOfBin[i * nj + n * every];
    if (trace < 0) continue;
    const bytes = await source.read(headers.firstTrace + trace * headers.traceBytes, headers.traceBytes);
    decodeSamples(bytes, 240, nk, headers.format, headers.littleEndian, data, n * nk);
  }
  const sorted = data.filter((v) => Number.isFinite(v)).sort();
  const at = (p: number) => sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))] ?? 0;
  const negative = sorted.length ? sorted.findIndex((v) => v >= 0) / sorted.length : 0;
  return {
    sample: {
      traces,
      samples: nk,
      data,
      clip: Math.max(Math.abs(at(0.01)), Math.abs(at(0.99))),
      stepMs: headers.intervalMs,
    },
    stats: { min: at(0), negative: negative < 0 ? 1 : negative, median: at(0.5) },
  };
}

export function sketchOf(lattice: Lattice): [number, number][] {
  const corners = cornersOf(lattice);
  return [...corners, corners[0]];
}

export interface SegyInspection {
  report: FileReport;
  headers: SegyHeaders;
  index: TraceIndex | null;
  positions: Positions | null;
}

/** Everything that can be known of a SEG-Y file without loading it. */
export async function inspectSegy(
  source: ByteSource,
  declare: Declarations = {},
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<SegyInspection> {
  const headers = await readHeaders(source);
  const ranked = rankPositions(await sampleHeaders(source, headers), headers);
  const positions = declaredPositions(ranked[0], declare);
  const report: FileReport = {
    file: source.name,
    bytes: source.size,
    format: 'SEG-Y',
    takenFor: '3D seismic volume',
    facts: [
      { label: 'Revision', value: headers.revision },
      { label: 'Samples', value: formatName(headers) },
      { label: 'Text header', value: headers.textEncoding },
      { label: 'Traces', value: String(headers.traces) },
      { label: 'Trace', value: `${headers.samples} samples by ${headers.intervalMs} ms, or m where it is in depth` },
    ],
    problems: [...headers.problems],
    questions: [],
    sketch: { lines: [], points: [] },
    positions: ranked,
    text: headers.textLines,
  };
  if (!positions) {
    report.takenFor = 'SEG-Y without a 3D grid';
    report.refused = {
      code: 'segy',
      message: `${source.name}: no byte positions were found at which traces make a grid of inlines and crosslines.`,
      object: source.name,
      fix: 'If it is a 3D survey, say where inline, crossline, X and Y stand; 2D lines are not read yet.',
    };
    return { report, headers, index: null, positions };
  }
  const index = await indexTraces(source, headers, positions, signal, onProgress);
  const { lattice } = index;
  const { sample, stats } = await sampleSection(source, headers, index);
  report.problems.push(...index.problems);
  report.questions = questionsFor(stats);
  report.sample = sample;
  report.sketch.lines.push(sketchOf(lattice));
  const axis = (a: { first: number; step: number; count: number }) =>
    `${a.first} to ${a.first + a.step * (a.count - 1)}${a.step === 1 ? '' : ` by ${a.step}`}`;
  report.facts.push(
    { label: 'Inlines', value: axis(lattice.inline) },
    { label: 'Crosslines', value: axis(lattice.crossline) },
    {
      label: 'Bin',
      value: `${Math.hypot(...lattice.perInline).toFixed(2)} × ${Math.hypot(...lattice.perCrossline).toFixed(2)} m`,
    },
    {
      label: 'Coordinates off the grid',
      value: `${index.residual.rms.toFixed(2)} m rms, ${index.residual.max.toFixed(2)} m at most`,
    },
    {
      label: 'Header bytes',
      value: `inline ${positions.inline}, crossline ${positions.crossline}, X ${positions.x}, Y ${positions.y}`,
    },
  );
  return { report, headers, index, positions };
}
