// What is worked out of traces moved along the dip of reflections: rows of one length, one after the other.
// Memory is laid out by the caller; offsets are in bytes.

/**
 * A trace read between its samples by a cubic (Catmull & Rom 1974): `to[k]` is the trace at `k + di · p[k] + dj · q[k]`. Nothing
 * (NaN) beyond its ends; by a straight line beside what is nothing.
 */
export function moved(from: usize, p: usize, q: usize, di: f32, dj: f32, to: usize, count: i32): void {
  const most = (count - 3) as f32;
  const three = f32x4.splat(3);
  const half = f32x4.splat(0.5);
  const nothing = f32x4.splat(NaN);
  const a = f32x4.splat(di);
  const b = f32x4.splat(dj);
  let k: i32 = 0;
  for (; k + 4 <= count; k += 4) {
    const o = (k as usize) << 2;
    const start = f32x4.convert_i32x4_s(i32x4.add(i32x4.splat(k), i32x4(0, 1, 2, 3)));
    // the part between samples comes from the slope alone, so that it is the same wherever a trace begins
    const lag = f32x4.add(f32x4.mul(a, v128.load(p + o)), f32x4.mul(b, v128.load(q + o)));
    const whole = f32x4.floor(lag);
    const f = f32x4.sub(lag, whole);
    const floor = f32x4.add(start, whole);
    const inside = v128.and(f32x4.ge(floor, f32x4.splat(1)), f32x4.le(floor, f32x4.splat(most)));
    // a place to read from, wherever it is
    const safe = f32x4.min(f32x4.max(v128.and(floor, inside), f32x4.splat(1)), f32x4.splat(max(most, 1)));
    const i = i32x4.trunc_sat_f32x4_s(safe);
    const r0 = v128.load(from + ((i32x4.extract_lane(i, 0) as usize) << 2) - 4);
    const r1 = v128.load(from + ((i32x4.extract_lane(i, 1) as usize) << 2) - 4);
    const r2 = v128.load(from + ((i32x4.extract_lane(i, 2) as usize) << 2) - 4);
    const r3 = v128.load(from + ((i32x4.extract_lane(i, 3) as usize) << 2) - 4);
    // rows of four samples to columns
    const l01 = v128.shuffle<f32>(r0, r1, 0, 4, 1, 5);
    const h01 = v128.shuffle<f32>(r0, r1, 2, 6, 3, 7);
    const l23 = v128.shuffle<f32>(r2, r3, 0, 4, 1, 5);
    const h23 = v128.shuffle<f32>(r2, r3, 2, 6, 3, 7);
    const A = v128.shuffle<f32>(l01, l23, 0, 1, 4, 5);
    const B = v128.shuffle<f32>(l01, l23, 2, 3, 6, 7);
    const C = v128.shuffle<f32>(h01, h23, 0, 1, 4, 5);
    const D = v128.shuffle<f32>(h01, h23, 2, 3, 6, 7);
    // b + f/2 · (c − a + f · (2a − 5b + 4c − d + f · (3(b − c) + d − a)))
    const inner = f32x4.add(f32x4.mul(three, f32x4.sub(B, C)), f32x4.sub(D, A));
    const middle = f32x4.add(
      f32x4.sub(f32x4.add(f32x4.add(A, A), f32x4.mul(f32x4.splat(4), C)), f32x4.add(f32x4.mul(f32x4.splat(5), B), D)),
      f32x4.mul(f, inner),
    );
    const value = f32x4.add(B, f32x4.mul(f32x4.mul(half, f), f32x4.add(f32x4.sub(C, A), f32x4.mul(f, middle))));
    // beside nothing by a straight line, and on a sample by itself
    const line = f32x4.add(B, f32x4.mul(f, f32x4.sub(C, B)));
    let best = v128.bitselect(value, line, f32x4.eq(value, value));
    best = v128.bitselect(B, best, f32x4.eq(f, f32x4.splat(0)));
    v128.store(to + o, v128.bitselect(best, nothing, inside));
  }
  for (; k < count; k++) {
    const o = (k as usize) << 2;
    const lag: f32 = di * load<f32>(p + o) + dj * load<f32>(q + o);
    const whole = Mathf.floor(lag);
    const floor: f32 = (k as f32) + whole;
    if (!(floor >= 1 && floor <= most)) {
      store<f32>(to + o, NaN);
      continue;
    }
    const f = lag - whole;
    const at = from + ((floor as i32 as usize) << 2);
    const A = load<f32>(at - 4);
    const B = load<f32>(at);
    const C = load<f32>(at + 4);
    const D = load<f32>(at + 8);
    const inner: f32 = 3 * (B - C) + (D - A);
    const middle: f32 = A + A + 4 * C - (5 * B + D) + f * inner;
    const value: f32 = B + 0.5 * f * (C - A + f * middle);
    store<f32>(to + o, f == 0 ? B : value == value ? value : B + f * (C - B));
  }
}

/** Sums and sums of squares of rows, and how many have a number there. */
export function foldRows(rows: usize, count: i32, samples: i32, sums: usize, squares: usize, live: usize): void {
  const row = (samples as usize) << 2;
  const one = f32x4.splat(1);
  for (let k: i32 = 0; k < samples; k += 4) {
    const o = (k as usize) << 2;
    let at = rows + o;
    let s = f32x4.splat(0);
    let q = f32x4.splat(0);
    let n = f32x4.splat(0);
    for (let j: i32 = 0; j < count; j++, at += row) {
      let v = v128.load(at);
      const there = f32x4.eq(v, v);
      v = v128.and(v, there);
      s = f32x4.add(s, v);
      q = f32x4.add(q, f32x4.mul(v, v));
      n = f32x4.add(n, v128.and(one, there));
    }
    v128.store(sums + o, s);
    v128.store(squares + o, q);
    v128.store(live + o, n);
  }
}

/** Products of every pair of rows, `j ≤ l`, each smoothed by the caller afterwards; what is no number is nought. */
export function pairProducts(rows: usize, count: i32, samples: i32, out: usize): void {
  const row = (samples as usize) << 2;
  let to = out;
  for (let j: i32 = 0; j < count; j++)
    for (let l: i32 = j; l < count; l++, to += row)
      for (let k: i32 = 0; k < samples; k += 4) {
        const o = (k as usize) << 2;
        let a = v128.load(rows + (j as usize) * row + o);
        let b = v128.load(rows + (l as usize) * row + o);
        a = v128.and(a, f32x4.eq(a, a));
        b = v128.and(b, f32x4.eq(b, b));
        v128.store(to + o, f32x4.mul(a, b));
      }
}

/** Turns of the power iteration: the first eigenvalue stands out of the others wherever it matters. */
const TURNS: i32 = 7;

/**
 * The part of the energy that the first eigenvector of a covariance matrix has (Gersztenkorn & Marfurt 1999, Geophysics 64, 1468–1479), of
 * matrices whose upper halves lie in rows as `pairProducts` leaves them. `scratch` holds `2 · 4 · count` floats.
 */
export function firstPart(pairs: usize, count: i32, samples: i32, from: i32, wanted: i32, scratch: usize, out: usize): void {
  const row = (samples as usize) << 2;
  const tiny = f32x4.splat(1e-30);
  const next = scratch + ((count as usize) << 4);
  for (let n: i32 = 0; n < wanted; n += 4) {
    const o = pairs + (((from + n) as usize) << 2);
    let trace = f32x4.splat(0);
    let at = o;
    for (let j: i32 = 0; j < count; j++) {
      trace = f32x4.add(trace, v128.load(at));
      at += ((count - j) as usize) * row;
      v128.store(scratch + ((j as usize) << 4), f32x4.splat(1));
    }
    const unit = f32x4.div(f32x4.splat(1), f32x4.max(trace, tiny));
    let top = f32x4.splat(0);
    let bottom = f32x4.splat(1);
    for (let turn: i32 = 0; turn < TURNS; turn++) {
      for (let j: i32 = 0; j < count; j++) v128.store(next + ((j as usize) << 4), f32x4.splat(0));
      at = o;
      for (let j: i32 = 0; j < count; j++) {
        const vj = v128.load(scratch + ((j as usize) << 4));
        let sum = v128.load(next + ((j as usize) << 4));
        sum = f32x4.add(sum, f32x4.mul(v128.load(at), vj));
        at += row;
        for (let l: i32 = j + 1; l < count; l++, at += row) {
          const c = v128.load(at);
          const to = next + ((l as usize) << 4);
          sum = f32x4.add(sum, f32x4.mul(c, v128.load(scratch + ((l as usize) << 4))));
          v128.store(to, f32x4.add(v128.load(to), f32x4.mul(c, vj)));
        }
        v128.store(next + ((j as usize) << 4), sum);
      }
      top = f32x4.splat(0);
      bottom = f32x4.splat(0);
      for (let j: i32 = 0; j < count; j++) {
        const v = v128.load(scratch + ((j as usize) << 4));
        const w = f32x4.mul(v128.load(next + ((j as usize) << 4)), unit);
        top = f32x4.add(top, f32x4.mul(v, w));
        bottom = f32x4.add(bottom, f32x4.mul(v, v));
        v128.store(next + ((j as usize) << 4), w);
      }
      // kept at the size that it had, so that nothing runs out of range
      let size = f32x4.splat(0);
      for (let j: i32 = 0; j < count; j++) {
        const w = v128.load(next + ((j as usize) << 4));
        size = f32x4.add(size, f32x4.mul(w, w));
      }
      const scale = f32x4.div(f32x4.splat(1), f32x4.sqrt(f32x4.max(size, tiny)));
      for (let j: i32 = 0; j < count; j++)
        v128.store(scratch + ((j as usize) << 4), f32x4.mul(v128.load(next + ((j as usize) << 4)), scale));
    }
    const value = f32x4.div(top, f32x4.max(bottom, tiny));
    const some = f32x4.gt(trace, tiny);
    v128.store(out + ((n as usize) << 2), v128.bitselect(f32x4.min(value, f32x4.splat(1)), f32x4.splat(NaN), some));
  }
}

/** Medians of rows, sample by sample; what is no number is taken as the middle row's, and where that is none there is none. The rows are sorted in doing so. */
export function medianRows(rows: usize, count: i32, samples: i32, out: usize): void {
  const row = (samples as usize) << 2;
  const own = rows + ((count >> 1) as usize) * row;
  for (let k: i32 = 0; k < samples; k += 4) {
    const o = (k as usize) << 2;
    const middle = v128.load(own + o);
    for (let j: i32 = 0; j < count; j++) {
      const at = rows + (j as usize) * row + o;
      const v = v128.load(at);
      v128.store(at, v128.bitselect(v, middle, f32x4.eq(v, v)));
    }
    // the greatest of those that are left sinks to the end, until the median is there
    for (let last = count - 1; last >= count >> 1; last--) {
      let at = rows + o;
      let high = v128.load(at);
      for (let j: i32 = 0; j < last; j++) {
        const v = v128.load(at + row);
        v128.store(at, f32x4.min(high, v));
        high = f32x4.max(high, v);
        at += row;
      }
      v128.store(at, high);
    }
    v128.store(out + o, v128.bitselect(v128.load(own + o), middle, f32x4.eq(middle, middle)));
  }
}

/**
 * Mean of the calmest of several sets of rows: of each set, `size` row numbers in `sets`, mean and variance are taken, and the mean
 * of the least variance holds (Luo et al. 2002, The Leading Edge 21, 136–158).
 */
export function calmest(rows: usize, samples: i32, sets: usize, count: i32, size: i32, out: usize): void {
  const row = (samples as usize) << 2;
  const one = f32x4.splat(1);
  for (let k: i32 = 0; k < samples; k += 4) {
    const o = (k as usize) << 2;
    let best = f32x4.splat(f32.MAX_VALUE);
    let held = f32x4.splat(NaN);
    for (let s: i32 = 0; s < count; s++) {
      let sum = f32x4.splat(0);
      let squares = f32x4.splat(0);
      let live = f32x4.splat(0);
      for (let m: i32 = 0; m < size; m++) {
        const j = load<i32>(sets + (((s * size + m) as usize) << 2));
        let v = v128.load(rows + (j as usize) * row + o);
        const there = f32x4.eq(v, v);
        v = v128.and(v, there);
        sum = f32x4.add(sum, v);
        squares = f32x4.add(squares, f32x4.mul(v, v));
        live = f32x4.add(live, v128.and(one, there));
      }
      const mean = f32x4.div(sum, f32x4.max(live, one));
      const spread = f32x4.sub(f32x4.div(squares, f32x4.max(live, one)), f32x4.mul(mean, mean));
      const better = v128.and(f32x4.lt(spread, best), f32x4.gt(live, f32x4.splat(0)));
      best = v128.bitselect(spread, best, better);
      held = v128.bitselect(mean, held, better);
    }
    v128.store(out + o, held);
  }
}

/** One turn of diffusion: `to = u + rate · Σ_j trust · (row_j − u)`, where a row is no number it adds nothing. */
export function diffuse(u: usize, rows: usize, count: i32, samples: i32, trust: usize, rate: f32, to: usize): void {
  const row = (samples as usize) << 2;
  for (let k: i32 = 0; k < samples; k += 4) {
    const o = (k as usize) << 2;
    const own = v128.load(u + o);
    let sum = f32x4.splat(0);
    for (let j: i32 = 0; j < count; j++) {
      const v = f32x4.sub(v128.load(rows + (j as usize) * row + o), own);
      sum = f32x4.add(sum, v128.and(v, f32x4.eq(v, v)));
    }
    v128.store(to + o, f32x4.add(own, f32x4.mul(f32x4.mul(f32x4.splat(rate), v128.load(trust + o)), sum)));
  }
}
