import type { ResultTable } from '../../earth/objects.ts';
import { nodesOf, shiftsOf } from '../../inversion/align.ts';
import type { Stack } from '../../project/stacks.ts';
import { traceAt } from '../../project/traces.ts';
import { shapeOf } from '../../storage/planes.ts';
import type { Store } from '../../storage/store.ts';
import type { Draft } from '../define.ts';

/** Places at which stacks are compared. */
const PLACES = 12;

/** How stacks compare with the first of them, by windows down the traces: rms, and time shifts as they are measured. */
export interface BalanceRow {
  ms: number;
  angle: number;
  /** rms over that of the first. */
  rms: number;
  shiftMs: number;
}

const middleOf = (values: number[]): number => {
  const sorted = values.filter((v) => v === v).sort((a, b) => a - b);
  return sorted.length > 0 ? sorted[sorted.length >> 1] : Number.NaN;
};

/** Amplitude and time of stacks against the first by windows, over places spread evenly. */
export async function balanceOf(
  store: Store,
  stacks: Stack[],
  windowMs: number,
  mostMs: number,
): Promise<BalanceRow[]> {
  const [first] = stacks;
  const [ni, nj, nk] = shapeOf(first.volume);
  const { step, first: t0 } = first.volume.vertical;
  const window = Math.round(windowMs / step);
  const nodes = nodesOf(nk, window);
  const shifts = stacks.map(() => nodes.map(() => [] as number[]));
  const powers = stacks.map(() => nodes.map(() => [0, 0]));
  for (let n = 0; n < PLACES; n++) {
    const i = Math.floor(((n + 0.5) * ni) / PLACES);
    const j = Math.floor((((n * 7) % PLACES) + 0.5) * (nj / PLACES));
    const traces = await Promise.all(stacks.map(({ volume }) => traceAt(store, volume, i, j)));
    for (const [s, trace] of traces.entries()) {
      if (!trace || !traces[0]) continue;
      const found = shiftsOf(
        { data: traces[0], size: [1, 1, nk] },
        { data: trace, size: [1, 1, nk] },
        { window, most: mostMs / step, radius: 0 },
      );
      for (const [q, middle] of nodes.entries()) {
        shifts[s][q].push(found.shifts[q] * step);
        for (let k = Math.max(0, middle - (window >> 1)); k < Math.min(nk, middle + (window >> 1)); k++)
          if (trace[k] === trace[k]) {
            powers[s][q][0] += trace[k] ** 2;
            powers[s][q][1]++;
          }
      }
    }
  }
  const rms = (s: number, q: number) => Math.sqrt(powers[s][q][0] / (powers[s][q][1] || 1));
  return stacks.flatMap(({ angle }, s) =>
    nodes.map((middle, q) => ({
      ms: t0 + middle * step,
      angle,
      rms: rms(s, q) / (rms(0, q) || 1),
      shiftMs: s === 0 ? 0 : middleOf(shifts[s][q]),
    })),
  );
}

/** The same before and after, as a table. */
export async function balanceTable(
  store: Store,
  before: Stack[],
  after: Stack[],
  { windowMs, mostMs }: { windowMs: number; mostMs: number },
): Promise<Draft<ResultTable>> {
  const [a, b] = [await balanceOf(store, before, windowMs, mostMs), await balanceOf(store, after, windowMs, mostMs)];
  return {
    kind: 'result table',
    columns: [
      { name: 'Middle of the window', unit: 'ms' },
      { name: 'Angle', unit: '°' },
      { name: 'rms against the first stack', unit: '' },
      { name: 'Shift before', unit: 'ms' },
      { name: 'Shift after', unit: 'ms' },
    ],
    rows: a.map((row, n) => [row.ms, row.angle, row.rms, row.shiftMs, b[n].shiftMs]),
  };
}
