import { heed } from '../numerics/stop.ts';

/** Runs of samples that pass a test, trace by trace from the first inline on: the nodes of bodies. */
export interface Runs {
  /** Where the runs of each trace begin in the lists, one more than there are traces. */
  starts: Uint32Array;
  /** First sample of each run and the one after its last. */
  from: Uint32Array;
  to: Uint32Array;
}

/** Collects runs; traces are given in their order, line after line. */
export function runsCollector(lines: number, traces: number) {
  const starts = new Uint32Array(lines * traces + 1);
  let [from, to] = [new Uint32Array(1024), new Uint32Array(1024)];
  let count = 0;
  let trace = 0;
  const put = (a: number, b: number) => {
    if (count === from.length) {
      const [f, t] = [new Uint32Array(2 * count), new Uint32Array(2 * count)];
      f.set(from);
      t.set(to);
      [from, to] = [f, t];
    }
    from[count] = a;
    to[count++] = b;
  };
  return {
    /** The next trace: samples `k0` on, `passes` for each of `count`. */
    add(k0: number, length: number, passes: (k: number) => boolean): void {
      let open = -1;
      for (let k = 0; k < length; k++) {
        if (passes(k)) {
          if (open < 0) open = k;
        } else if (open >= 0) {
          put(k0 + open, k0 + k);
          open = -1;
        }
      }
      if (open >= 0) put(k0 + open, k0 + length);
      starts[++trace] = count;
    },
    finish: (): Runs => ({ starts, from: from.slice(0, count), to: to.slice(0, count) }),
  };
}

export type Connectivity = 6 | 26;

/**
 * Which body each run belongs to: union–find over runs that touch (Tarjan 1975, J. ACM 22, 215–225), through faces (6), or through edges and
 * corners too (26).
 * @returns for each run the number of its body, from nought on, and how many bodies there are
 */
export function bodiesOf(
  { starts, from, to }: Runs,
  lines: number,
  traces: number,
  by: Connectivity,
): { body: Uint32Array; count: number } {
  const parent = Uint32Array.from({ length: from.length }, (_, n) => n);
  const root = (n: number) => {
    while (parent[n] !== n) {
      parent[n] = parent[parent[n]];
      n = parent[n];
    }
    return n;
  };
  // runs of one trace that are a sample apart touch runs beside them by their corners
  const near = by === 26 ? 1 : 0;
  const join = (a: number, b: number) => {
    let [p, q] = [starts[a], starts[b]];
    while (p < starts[a + 1] && q < starts[b + 1]) {
      if (from[p] < to[q] + near && from[q] < to[p] + near) {
        const [u, v] = [root(p), root(q)];
        // the earlier is the root, so that numbers do not rest on the order of joins
        if (u !== v) parent[Math.max(u, v)] = Math.min(u, v);
      }
      if (to[p] <= to[q]) p++;
      else q++;
    }
  };
  const beside = by === 26 ? [-1, 0, 1] : [0];
  for (let i = 0; i < lines; i++) {
    heed();
    for (let j = 0; j < traces; j++) {
      const own = i * traces + j;
      if (starts[own] === starts[own + 1]) continue;
      if (j > 0) join(own, own - 1);
      if (i > 0) for (const d of beside) if (j + d >= 0 && j + d < traces) join(own, own - traces + d);
    }
  }
  const body = new Uint32Array(from.length);
  let count = 0;
  for (let n = 0; n < from.length; n++) {
    const r = root(n);
    body[n] = r === n ? count++ : body[r];
  }
  return { body, count };
}

/** What there is to say of a body; places are bins and samples. */
export interface BodyFacts {
  body: number;
  samples: number;
  /** Bins that it lies under. */
  bins: number;
  /** First and last sample. */
  top: number;
  base: number;
  /** Middle of its samples: line, trace, sample. */
  middle: [number, number, number];
}

/** Facts of all bodies, the largest first. */
export function factsOfBodies(
  { starts, from, to }: Runs,
  lines: number,
  traces: number,
  body: Uint32Array,
  count: number,
): BodyFacts[] {
  const facts = Array.from(
    { length: count },
    (_, n): BodyFacts => ({
      body: n,
      samples: 0,
      bins: 0,
      top: Number.POSITIVE_INFINITY,
      base: -1,
      middle: [0, 0, 0],
    }),
  );
  for (let t = 0; t < lines * traces; t++) {
    if (t % traces === 0) heed();
    const here = new Set<number>();
    for (let n = starts[t]; n < starts[t + 1]; n++) {
      const f = facts[body[n]];
      const length = to[n] - from[n];
      f.samples += length;
      if (!here.has(body[n])) f.bins++;
      here.add(body[n]);
      f.top = Math.min(f.top, from[n]);
      f.base = Math.max(f.base, to[n] - 1);
      f.middle[0] += length * Math.floor(t / traces);
      f.middle[1] += length * (t % traces);
      f.middle[2] += (length * (from[n] + to[n] - 1)) / 2;
    }
  }
  for (const f of facts) f.middle = f.middle.map((v) => v / f.samples) as BodyFacts['middle'];
  return facts.sort((a, b) => b.samples - a.samples || a.body - b.body);
}
