import { LithagonError, stopIf } from '../../earth/errors.ts';
import { factorOf, flatCoordinates, scalarProblems, usualScalar } from './coordinates.ts';
import { eachHeader, type SegyFile } from './file.ts';
import type { SegyHeaders } from './headers.ts';
import type { HeaderSample } from './positions.ts';
import type { Placing } from './traces.ts';

/** Where the navigation of 2D lines stands in trace headers: byte positions from 1; 0 where there is none. */
export interface LinePositions {
  cdp: number;
  x: number;
  y: number;
  shotpoint: number;
  /** A number that changes from line to line where a file holds several. */
  line: number;
}

export interface RankedLinePositions extends LinePositions {
  score: number;
  why: string;
}

const COUNTERS = [21, 25, 193, 189, 17, 1, 5];
const COORDINATES = [181, 73, 81, 189, 201, 217];
const SHOTS = [197, 17, 193];
const LINES = [189, 9, 197, 229];

/**
 * Rank where CDP, coordinates and shotpoint of 2D lines may stand: neighbouring traces lie at an even distance, and CDP
 * numbers rise by an even step.
 */
export function rankLinePositions(sample: HeaderSample, headers: SegyHeaders): RankedLinePositions[] {
  const le = headers.littleEndian;
  const read = (at: number) => Float64Array.from(sample.views, (view) => view.getInt32(at - 1, le));
  const neighbours: number[] = [];
  for (let n = 1; n < sample.traces.length; n++) if (sample.traces[n] === sample.traces[n - 1] + 1) neighbours.push(n);
  if (neighbours.length < 3) return [];
  const median = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1] ?? 0;
  const out: RankedLinePositions[] = [];
  // a line number is one for long runs of traces, and changes seldom
  const lineAt = LINES.find((at) => {
    const values = read(at);
    const changes = neighbours.filter((n) => values[n] !== values[n - 1]).length;
    return changes < neighbours.length / 10 && new Set(values).size > 1;
  });
  const line = lineAt ? read(lineAt) : null;
  const within = neighbours.filter((n) => !line || line[n] === line[n - 1]);
  for (const at of COORDINATES) {
    const { x, y } = flatCoordinates(sample, headers, at);
    const steps = within.map((n) => Math.hypot(x[n] - x[n - 1], y[n] - y[n - 1]));
    const step = median([...steps]);
    if (!(step > 0) || Math.abs(x[0]) < 1) continue;
    const even = steps.filter((s) => s < 3 * step && s > 0.2 * step).length / steps.length;
    for (const cdp of COUNTERS) {
      if (Math.abs(cdp - at) < 8 || cdp === lineAt) continue;
      const values = read(cdp);
      const jump = median(within.map((n) => values[n] - values[n - 1]));
      if (jump === 0) continue;
      const regular = within.filter((n) => values[n] - values[n - 1] === jump).length / within.length;
      const shot = SHOTS.find((s) => {
        if (s === cdp || s === lineAt || Math.abs(s - at) < 8) return false;
        const shots = read(s);
        return new Set(shots).size > 1 && within.every((n) => Math.abs(shots[n] - shots[n - 1]) <= 10);
      });
      const score = even * regular * (step >= 1 && step < 500 ? 1 : 0.5) - (cdp === 21 ? 0 : 0.02);
      if (score > 0.5)
        out.push({
          cdp,
          x: at,
          y: at + 4,
          shotpoint: shot ?? 0,
          line: lineAt ?? 0,
          score,
          why: `CDP numbers step by ${jump}; traces lie ${step.toFixed(1)} apart, ${(100 * even).toFixed(0)} % of them evenly`,
        });
    }
  }
  if (out.length > 0) return out.sort((a, b) => b.score - a.score).slice(0, 6);
  // without coordinates a line is found by its numbers alone, and waits for its navigation
  const blank = COORDINATES.every((at) => new Set(read(at)).size === 1 || new Set(read(at + 4)).size === 1);
  const cdp = COUNTERS.find((at) => {
    const values = read(at);
    const jump = median(within.map((n) => values[n] - values[n - 1]));
    return jump !== 0 && within.every((n) => values[n] - values[n - 1] === jump);
  });
  if (!blank || !cdp) return [];
  const shotpoint = SHOTS.find((at) => at !== cdp && at !== lineAt && new Set(read(at)).size > 1) ?? 0;
  return [
    {
      cdp,
      x: 0,
      y: 0,
      shotpoint,
      line: lineAt ?? 0,
      score: 0.4,
      why: 'CDP numbers rise evenly; no coordinates stand in the headers, so that it waits for its navigation',
    },
  ];
}

/** The traces of one 2D line in a file, in their order. */
export interface LineTraces {
  name: string;
  traces: Int32Array;
  path: [number, number][];
  cdps: number[];
  shotpoints?: number[];
  /** Delay of the first trace, ms. */
  first: number;
}

/** Traces of each line of a file; a change of line number, or a jump in position, begins another. */
export async function indexLines(
  file: SegyFile,
  positions: LinePositions,
  { toMap, scalar }: Placing,
  stem: string,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<{ lines: LineTraces[]; problems: string[] }> {
  const lines: {
    number: number;
    traces: number[];
    path: [number, number][];
    cdps: number[];
    shots: number[];
    first: number;
  }[] = [];
  const count = file.traces;
  const [numbers, cdps, shots] = [new Int32Array(count), new Int32Array(count), new Int32Array(count)];
  const [x, y] = [new Float64Array(count), new Float64Array(count)];
  const [scalars, delays] = [new Int16Array(count), new Int16Array(count)];
  await eachHeader(
    file,
    (view, at, n, le) => {
      const read = (byte: number) => (byte > 0 ? view.getInt32(at + byte - 1, le) : 0);
      numbers[n] = read(positions.line);
      cdps[n] = read(positions.cdp);
      shots[n] = read(positions.shotpoint);
      x[n] = read(positions.x);
      y[n] = read(positions.y);
      scalars[n] = view.getInt16(at + 70, le);
      delays[n] = view.getInt16(at + 108, le);
    },
    (part) => {
      stopIf(signal);
      onProgress?.(part);
    },
  );
  const usual = usualScalar(scalars);
  let step = 0;
  for (let n = 0; n < count; n++) {
    const factor = factorOf(scalar ?? (scalars[n] || usual));
    const place: [number, number] = positions.x ? toMap(x[n] * factor, y[n] * factor) : [0, 0];
    let line = lines[lines.length - 1];
    const last = line?.path[line.path.length - 1];
    const moved = last ? Math.hypot(place[0] - last[0], place[1] - last[1]) : 0;
    if (line && line.path.length === 2) step = moved;
    // a gap in a line is bridged, the way to the next line is not
    const jumped = line && line.path.length > 2 && step > 0 && moved > 100 * step;
    if (!line || line.number !== numbers[n] || jumped) {
      line = { number: numbers[n], traces: [], path: [], cdps: [], shots: [], first: delays[n] };
      lines.push(line);
    }
    line.traces.push(n);
    line.path.push(place);
    line.cdps.push(cdps[n]);
    if (positions.shotpoint) line.shots.push(shots[n]);
  }
  const usable = lines.filter((l) => l.traces.length > 1);
  if (usable.length === 0)
    throw new LithagonError('segy', `${file.name} holds no line of two traces or more.`, {
      object: file.name,
      fix: 'Choose other byte positions.',
    });
  const problems = positions.x && scalar === undefined ? scalarProblems(scalars, () => true) : [];
  const made = usable.map((line) => ({
    name: usable.length === 1 ? stem : `${stem} ${line.number || usable.indexOf(line) + 1}`,
    traces: Int32Array.from(line.traces),
    path: positions.x ? line.path : [],
    cdps: line.cdps,
    ...(line.shots.length > 0 ? { shotpoints: line.shots } : {}),
    first: line.first,
  }));
  return { lines: made, problems };
}
