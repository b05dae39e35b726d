import { toIndex } from '../earth/binGrid.ts';
import { LithagonError, stopIf } from '../earth/errors.ts';
import type { EarthObject, Horizon, Picks, SeismicLine } from '../earth/objects.ts';
import { fillGaps } from '../horizons/fill.ts';
import { gridAt } from '../horizons/grid.ts';
import { during } from '../numerics/stop.ts';
import { readWhole } from '../storage/arrays.ts';
import type { Store } from '../storage/store.ts';
import { type Above, timeAbove } from '../velocity/column.ts';
import { countOf, type Nodes, nearestOnPath, placesOf } from '../velocity/nodes.ts';
import { pathOfLine } from './lines.ts';

/** A boundary of a model: its times at every node. */
export interface Boundary {
  of: Horizon | Picks;
  times: Float32Array;
}

/** Where a model of boundaries has its maps: along a 2D line where one is chosen, else on the bins of the first horizon. */
export function nodesFor(objects: EarthObject[], given: (Horizon | Picks)[], line?: SeismicLine): Nodes {
  if (line) {
    const path = pathOfLine(objects, line);
    if (path) return { path };
    throw new LithagonError('input', `${line.name} has no positions yet.`, {
      object: line.name,
      fix: 'Load its navigation first. Nothing was changed.',
    });
  }
  const horizon = given.find((h): h is Horizon => h.kind === 'horizon');
  if (horizon) return { binGrid: horizon.binGrid };
  throw new LithagonError('input', 'Picks alone do not say where the model lies.', {
    fix: 'Choose the 2D line that they were made on, or a horizon. Nothing was changed.',
  });
}

/** Values of a horizon at nodes, NaN where it has none. */
async function sampled(store: Store, horizon: Horizon, nodes: Nodes): Promise<Float32Array> {
  const values = await readWhole(store, horizon.values);
  return Float32Array.from(placesOf(nodes), ([x, y]) => gridAt(values, horizon.binGrid, x, y));
}

/** Picks at the nodes that they lie nearest to; several of one node count by their mean. */
function pickedAt({ points }: Picks, nodes: Nodes): Float32Array {
  const out = new Float32Array(countOf(nodes)).fill(Number.NaN);
  const counts = new Uint16Array(out.length);
  const add = (n: number, value: number) => {
    out[n] = counts[n] === 0 ? value : (out[n] * counts[n] + value) / (counts[n] + 1);
    counts[n]++;
  };
  if ('path' in nodes) {
    const { path } = nodes;
    const near = path.length > 1 ? Math.hypot(path[1][0] - path[0][0], path[1][1] - path[0][1]) : 1;
    for (const [x, y, t] of points) {
      const { trace, off } = nearestOnPath(path, x, y);
      // picks of other lines stand farther off than any of this one
      if (off <= 4 * near) add(Math.round(trace), t);
    }
    return out;
  }
  const { binGrid } = nodes;
  for (const [x, y, t] of points) {
    const [i, j] = toIndex(binGrid, x, y).map(Math.round);
    if (i >= 0 && j >= 0 && i < binGrid.inline.count && j < binGrid.crossline.count)
      add(i * binGrid.crossline.count + j, t);
  }
  return out;
}

/** Gaps of a map at nodes: by a membrane over bins, by straight lines along a path, held at its ends. */
function filled(values: Float32Array, nodes: Nodes): Float32Array {
  if ('binGrid' in nodes) return fillGaps(values, nodes.binGrid.inline.count, nodes.binGrid.crossline.count, 1);
  const out = values.slice();
  let last = -1;
  for (let n = 0; n <= out.length; n++) {
    if (n < out.length && Number.isNaN(out[n])) continue;
    for (let q = last + 1; q < n; q++) {
      const f = last < 0 ? 1 : n === out.length ? 0 : (q - last) / (n - last);
      out[q] = (last < 0 ? 0 : (1 - f) * out[last]) + (n === out.length ? 0 : f * out[n]);
    }
    last = n;
  }
  return out;
}

/** The sea bed at nodes, with its gaps filled; null where there is none, or where it does not reach, which is said. */
export async function seaBedOn(
  store: Store,
  seaBed: Horizon | undefined,
  nodes: Nodes | null,
  say: (sentence: string) => void,
): Promise<Float32Array | null> {
  if (!seaBed || !nodes) return null;
  const values = await sampled(store, seaBed, nodes);
  if (!values.every(Number.isNaN)) return filled(values, nodes);
  say(`${seaBed.name} has no depth where the model lies: layers begin at the datum.`);
  return null;
}

/**
 * Boundaries from the top down, everywhere: where one is missing, the time that its layer takes is carried on from around.
 * What is filled and what crosses is said.
 */
export async function boundariesOn(
  store: Store,
  given: (Horizon | Picks)[],
  nodes: Nodes,
  {
    above,
    seaBed,
    signal,
    say,
  }: { above: Above; seaBed: Float32Array | null; signal?: AbortSignal; say(sentence: string): void },
): Promise<Boundary[]> {
  const count = countOf(nodes);
  const bins = 'path' in nodes ? 'traces' : 'bins';
  const raw = await Promise.all(
    given.map(async (of) => ({
      of,
      times: of.kind === 'picks' ? pickedAt(of, nodes) : await sampled(store, of, nodes),
    })),
  );
  for (const { of, times } of raw)
    if (times.every(Number.isNaN))
      throw new LithagonError('input', `${of.name} has no time where the model lies.`, {
        object: of.name,
        fix: 'Choose what lies there. Nothing was changed.',
      });
  const mean = (times: Float32Array) => {
    let [sum, n] = [0, 0];
    for (const t of times)
      if (!Number.isNaN(t)) {
        sum += t;
        n++;
      }
    return sum / n;
  };
  raw.sort((a, b) => mean(a.times) - mean(b.times));
  let before = seaBed ? Float32Array.from(seaBed, (z) => timeAbove(above, z)) : new Float32Array(count);
  let over = seaBed ? 'the sea bed' : 'the datum';
  return raw.map(({ of, times }) => {
    stopIf(signal);
    const thick = Float32Array.from(times, (t, n) => t - before[n]);
    const gaps = times.reduce((n, t) => n + (Number.isNaN(t) ? 1 : 0), 0);
    const whole = gaps > 0 ? during(signal, () => filled(thick, nodes)) : thick;
    let crossed = 0;
    const out = Float32Array.from(whole, (d, n) => {
      if (!Number.isNaN(thick[n]) && d < -1e-3) crossed++;
      return Number.isNaN(times[n]) ? before[n] + Math.max(0, d) : times[n];
    });
    if (gaps > 0 && of.kind === 'horizon')
      say(
        `${of.name} is missing at ${gaps} of ${count} ${bins}: the time from ${over} to it was carried on there from around.`,
      );
    if (crossed > 0)
      say(`${of.name} lies above ${over} at ${crossed} of ${count} ${bins}: there is no layer between them there.`);
    before = Float32Array.from(out, (t, n) => Math.max(t, before[n]));
    over = of.name;
    return { of, times: out };
  });
}
