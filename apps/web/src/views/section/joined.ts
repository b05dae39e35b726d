import { cubicBetween, type EarthObject, meetings, pathOfLine, type SeismicLine } from '@lithagon/core';
import type { Piece } from '../../state/views';

/** A piece of a 2D line as it is read: its traces in their order along the composite. */
export interface Part {
  line: SeismicLine;
  traces: number[];
  path: [number, number][];
}

/** The trace nearest to a CDP. */
function traceAt({ cdps }: SeismicLine, cdp: number): number {
  let best = 0;
  for (const [n, c] of cdps.entries()) if (Math.abs(c - cdp) < Math.abs(cdps[best] - cdp)) best = n;
  return best;
}

/** Pieces as far as their lines are there and have places, in one domain. */
export function partsOf(objects: EarthObject[], pieces: Piece[]): Part[] {
  return pieces.flatMap(({ line: id, from, to }) => {
    const line = objects.find((o): o is SeismicLine => o.id === id && o.kind === 'seismic line');
    const path = line && pathOfLine(objects, line);
    if (!line || !path) return [];
    const [a, b] = [traceAt(line, from), traceAt(line, to)];
    const by = b >= a ? 1 : -1;
    const traces = Array.from({ length: Math.abs(b - a) + 1 }, (_, n) => a + by * n);
    return [{ line, traces, path: traces.map((t) => path[t]) }];
  });
}

/** A composite of pieces: where its traces lie, and at which trace each piece begins. */
export interface Joined {
  path: [number, number][];
  /** Trace of each piece that a trace of the composite is; null where a gap is left between ends that do not meet. */
  from: ({ part: number; trace: number } | null)[];
  starts: number[];
}

/** Ends further apart than this many traces do not meet. */
const MEET = 3;

export function joinedOf(parts: Part[]): Joined {
  const path: Joined['path'] = [];
  const from: Joined['from'] = [];
  const starts: number[] = [];
  for (const [part, { traces, path: own }] of parts.entries()) {
    const last = path[path.length - 1];
    const apart = last ? Math.hypot(own[0][0] - last[0], own[0][1] - last[1]) : 0;
    const usual = own.length > 1 ? Math.hypot(own[1][0] - own[0][0], own[1][1] - own[0][1]) : apart;
    if (apart > MEET * usual) {
      path.push([(last[0] + own[0][0]) / 2, (last[1] + own[0][1]) / 2]);
      from.push(null);
    }
    starts.push(path.length);
    path.push(...own);
    from.push(...traces.map((trace) => ({ part, trace })));
  }
  return { path, from, starts };
}

/** Samples of a composite, those of every piece at the times (or depths) of the first; NaN in gaps and where a piece has none. */
export function samplesOf(parts: Part[], joined: Joined, data: Float32Array[]): Float32Array {
  const { first, step, count } = parts[0].line.vertical;
  const out = new Float32Array(joined.from.length * count).fill(Number.NaN);
  for (const [n, source] of joined.from.entries()) {
    if (!source) continue;
    const { vertical } = parts[source.part].line;
    const base = source.trace * vertical.count;
    const samples = data[source.part];
    if (vertical.first === first && vertical.step === step && vertical.count === count) {
      out.set(samples.subarray(base, base + count), n * count);
      continue;
    }
    const at = (k: number) => samples[base + Math.max(0, Math.min(vertical.count - 1, k))];
    for (let k = 0; k < count; k++) {
      const x = (first + k * step - vertical.first) / vertical.step;
      const i = Math.floor(x);
      if (x >= 0 && x <= vertical.count - 1)
        out[n * count + k] = cubicBetween(at(i - 1), at(i), at(i + 1), at(i + 2), x - i);
    }
  }
  return out;
}

/** A whole line as a piece. */
export const wholeOf = (line: SeismicLine): Piece => ({
  line: line.id,
  from: line.cdps[0],
  to: line.cdps[line.cdps.length - 1],
});

/**
 * Pieces with one more line after them. Where it crosses the last, that one ends at the crossing and the new one goes on from
 * there, each along its longer arm; else it follows from its nearer end.
 */
export function withLine(objects: EarthObject[], pieces: Piece[], added: SeismicLine): Piece[] {
  const last = pieces[pieces.length - 1];
  const before = objects.find((o): o is SeismicLine => o.id === last?.line && o.kind === 'seismic line');
  const [a, b] = [before && pathOfLine(objects, before), pathOfLine(objects, added)];
  if (!before || !a || !b) return [...pieces, wholeOf(added)];
  const cdpAt = ({ cdps }: SeismicLine, trace: number) =>
    cdps[Math.max(0, Math.min(cdps.length - 1, Math.round(trace)))];
  const [i, j] = [traceAt(before, last.from), traceAt(before, last.to)];
  const crossing = meetings(a, b)
    // the longest way along the last before the turn
    .sort((p, q) => Math.abs(q.s - i) - Math.abs(p.s - i))
    .find(({ s }) => pieces.length === 1 || (s - i) * (s - j) <= 0);
  const end = added.cdps.length - 1;
  if (crossing) {
    const { s, t } = crossing;
    // of a line that stands alone the longer arm leads to the crossing
    const begin = pieces.length > 1 ? i : s >= before.cdps.length - 1 - s ? 0 : before.cdps.length - 1;
    return [
      ...pieces.slice(0, -1),
      { line: last.line, from: cdpAt(before, begin), to: cdpAt(before, s) },
      { line: added.id, from: cdpAt(added, t), to: cdpAt(added, t >= end - t ? 0 : end) },
    ];
  }
  const far = (p: [number, number]) => Math.hypot(p[0] - a[j][0], p[1] - a[j][1]);
  const turned = far(b[end]) < far(b[0]);
  return [...pieces, { line: added.id, from: cdpAt(added, turned ? end : 0), to: cdpAt(added, turned ? 0 : end) }];
}
