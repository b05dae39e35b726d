import type { SegyHeaders } from './headers.ts';
import type { HeaderSample } from './positions.ts';

/** Traces that are not stacked: what groups of them have in common. */
export interface Prestack {
  kind: 'shot records' | 'receiver gathers' | 'gathers';
  /** Traces in a group, about. */
  fold: number;
  offsets: [least: number, greatest: number] | null;
}

/** The median length of groups of neighbours; those at the ends of what was looked at count where there is no other. */
function usualLength(traces: ArrayLike<number>, group: (n: number) => boolean): number {
  const [whole, ends]: number[][] = [[], []];
  let [length, atEnd] = [1, true];
  for (let n = 1; n <= traces.length; n++) {
    const next = n < traces.length && traces[n] === traces[n - 1] + 1;
    if (next && group(n)) {
      length++;
      continue;
    }
    (atEnd || !next ? ends : whole).push(length);
    [length, atEnd] = [1, !next];
  }
  const lengths = (whole.length > 0 ? whole : ends).sort((a, b) => a - b);
  return lengths[lengths.length >> 1];
}

/** Part of neighbouring pairs of traces that have to belong to one group. */
const MOST = 0.4;

/**
 * What a file of unstacked traces holds, by its headers: neighbours of one source and several receivers (bytes 73 to 88),
 * or of one bin with several offsets (37) or numbers in the ensemble (25). Null where its traces are stacked.
 */
export function prestackOf({ traces, views }: HeaderSample, { littleEndian: le }: SegyHeaders): Prestack | null {
  const read = (at: number) => views.map((view) => view.getInt32(at - 1, le));
  const pairs: number[] = [];
  for (let n = 1; n < traces.length; n++) if (traces[n] === traces[n - 1] + 1) pairs.push(n);
  if (pairs.length < 8) return null;
  const share = (fits: (n: number) => boolean) => pairs.filter(fits).length / pairs.length;
  const same = (...columns: number[][]) => {
    // what is one value throughout tells no groups apart
    const tells = columns.some((c) => c.some((v) => v !== c[0]));
    return (n: number) => tells && columns.every((c) => c[n] === c[n - 1]);
  };
  const offsets = read(37);
  const range: Prestack['offsets'] = offsets.some((v) => v !== offsets[0])
    ? [offsets.reduce((a, b) => Math.min(a, b)), offsets.reduce((a, b) => Math.max(a, b))]
    : null;
  const found = (kind: Prestack['kind'], group: (n: number) => boolean): Prestack => ({
    kind,
    fold: usualLength(traces, group),
    offsets: range,
  });
  const [sx, sy, gx, gy] = [73, 77, 81, 85].map(read);
  const [source, receiver] = [same(sx, sy), same(gx, gy)];
  const apart = views.some((_, n) => sx[n] !== gx[n] || sy[n] !== gy[n]) && gx.some((v) => v !== 0);
  const [inEnsemble, inRecord] = [read(25), read(13)];
  const bin = [same(read(189), read(193)), same(read(21)), same(read(181), read(185))];
  for (const group of bin) {
    const together = (n: number) =>
      group(n) && (offsets[n] !== offsets[n - 1] || inEnsemble[n] === inEnsemble[n - 1] + 1);
    if (share(together) > MOST) return found('gathers', group);
  }
  if (apart && share((n) => source(n) && !receiver(n)) > MOST) return found('shot records', source);
  if (apart && share((n) => receiver(n) && !source(n)) > MOST) return found('receiver gathers', receiver);
  const record = same(read(9));
  if (range && share((n) => record(n) && inRecord[n] === inRecord[n - 1] + 1 && offsets[n] !== offsets[n - 1]) > MOST)
    return found('shot records', record);
  return null;
}
