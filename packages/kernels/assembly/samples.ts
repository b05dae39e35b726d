// What a load does to every sample: bytes to floats, running sums, and runs of samples laid together for slices.
// Memory is laid out by the caller; offsets are in bytes.

/** Words with their bytes turned round, four at a time. */
// @ts-ignore: decorator
@inline
function turned(w: v128): v128 {
  return v128.shuffle<u8>(w, w, 3, 2, 1, 0, 7, 6, 5, 4, 11, 10, 9, 8, 15, 14, 13, 12);
}

/** `traces` traces of IEEE floats of the other byte order, `stride` words apart, laid one after the other at `to`. */
export function turnTraces(from: usize, to: usize, traces: i32, stride: i32, count: i32): void {
  for (let t: i32 = 0; t < traces; t++) {
    // a last four that is not whole runs over into what is written next
    for (let k: i32 = 0; k < count; k += 4) {
      const o = (k as usize) << 2;
      v128.store(to + o, turned(v128.load(from + o)));
    }
    from += (stride as usize) << 2;
    to += (count as usize) << 2;
  }
}

/**
 * `traces` traces of IBM floats (base 16, excess 64, 24-bit fraction), `stride` words apart, to IEEE ones laid one after
 * the other at `to`. Exact wherever the result is a normal float32.
 * @returns how many fours of samples hold one outside that: they are to be done over
 */
export function ibmTraces(from: usize, to: usize, traces: i32, stride: i32, count: i32, turn: i32): i32 {
  const fraction = i32x4.splat(0xffffff);
  const sign = i32x4.splat(0x80000000);
  const low = i32x4.splat(39);
  const span = i32x4.splat(95 - 39);
  const lanes = i32x4(0, 1, 2, 3);
  let outside: i32 = 0;
  for (let t: i32 = 0; t < traces; t++) {
    for (let k: i32 = 0; k < count; k += 4) {
      const o = (k as usize) << 2;
      const raw = v128.load(from + o);
      const w = turn ? turned(raw) : raw;
      const e = v128.and(i32x4.shr_u(w, 24), i32x4.splat(0x7f));
      const f = v128.and(w, fraction);
      // 2^(4·(e − 64) − 24) put together from its bits: biased exponent 4·e − 153
      const scale = i32x4.shl(i32x4.sub(i32x4.shl(e, 2), i32x4.splat(153)), 23);
      const zero = i32x4.eq(f, i32x4.splat(0));
      const far = v128.andnot(i32x4.gt_u(i32x4.sub(e, low), span), zero);
      // what follows a trace is no sample
      if (v128.any_true(v128.and(far, i32x4.lt_s(lanes, i32x4.splat(count - k))))) outside++;
      const value = f32x4.mul(f32x4.convert_i32x4_s(f), v128.andnot(scale, zero));
      v128.store(to + o, v128.or(value, v128.and(w, sign)));
    }
    from += (stride as usize) << 2;
    to += (count as usize) << 2;
  }
  return outside;
}

/**
 * Sums over `count` floats (a multiple of four). Writes six doubles at `out`: samples that are finite, nulls, their sum,
 * the sum of their squares, least and greatest. Infinities count as neither.
 */
export function sums(at: usize, count: i32, out: usize): void {
  const zero = f32x4.splat(0);
  const magnitude = i32x4.splat(0x7fffffff);
  const largest = i32x4.splat(0x7f7fffff);
  let least = f32x4.splat(Infinity);
  let most = f32x4.splat(-Infinity);
  let finite = i32x4.splat(0);
  let nulls = i32x4.splat(0);
  let sum = f64x2.splat(0);
  let sumToo = f64x2.splat(0);
  let squares = f64x2.splat(0);
  let squaresToo = f64x2.splat(0);
  let k: i32 = 0;
  while (k < count) {
    // sixteen that are all finite, as nearly all are, need no masks
    if (k + 16 <= count) {
      const o = at + ((k as usize) << 2);
      const a = v128.load(o);
      const b = v128.load(o, 16);
      const c = v128.load(o, 32);
      const d = v128.load(o, 48);
      const size = i32x4.max_s(
        i32x4.max_s(v128.and(a, magnitude), v128.and(b, magnitude)),
        i32x4.max_s(v128.and(c, magnitude), v128.and(d, magnitude)),
      );
      if (!v128.any_true(i32x4.gt_s(size, largest))) {
        least = f32x4.pmin(f32x4.pmin(least, f32x4.pmin(a, b)), f32x4.pmin(c, d));
        most = f32x4.pmax(f32x4.pmax(most, f32x4.pmax(a, b)), f32x4.pmax(c, d));
        const a0 = f64x2.promote_low_f32x4(a);
        const a1 = f64x2.promote_low_f32x4(v128.shuffle<f32>(a, a, 2, 3, 0, 1));
        const b0 = f64x2.promote_low_f32x4(b);
        const b1 = f64x2.promote_low_f32x4(v128.shuffle<f32>(b, b, 2, 3, 0, 1));
        const c0 = f64x2.promote_low_f32x4(c);
        const c1 = f64x2.promote_low_f32x4(v128.shuffle<f32>(c, c, 2, 3, 0, 1));
        const d0 = f64x2.promote_low_f32x4(d);
        const d1 = f64x2.promote_low_f32x4(v128.shuffle<f32>(d, d, 2, 3, 0, 1));
        sum = f64x2.add(sum, f64x2.add(f64x2.add(a0, b0), f64x2.add(c0, d0)));
        sumToo = f64x2.add(sumToo, f64x2.add(f64x2.add(a1, b1), f64x2.add(c1, d1)));
        squares = f64x2.add(
          squares,
          f64x2.add(
            f64x2.add(f64x2.mul(a0, a0), f64x2.mul(b0, b0)),
            f64x2.add(f64x2.mul(c0, c0), f64x2.mul(d0, d0)),
          ),
        );
        squaresToo = f64x2.add(
          squaresToo,
          f64x2.add(
            f64x2.add(f64x2.mul(a1, a1), f64x2.mul(b1, b1)),
            f64x2.add(f64x2.mul(c1, c1), f64x2.mul(d1, d1)),
          ),
        );
        finite = i32x4.add(finite, i32x4.splat(4));
        k += 16;
        continue;
      }
    }
    const v = v128.load(at + ((k as usize) << 2));
    const real = f32x4.eq(f32x4.sub(v, v), zero);
    finite = i32x4.sub(finite, real);
    nulls = i32x4.sub(nulls, f32x4.ne(v, v));
    least = f32x4.pmin(least, v128.bitselect(v, f32x4.splat(Infinity), real));
    most = f32x4.pmax(most, v128.bitselect(v, f32x4.splat(-Infinity), real));
    const kept = v128.and(v, real);
    const low = f64x2.promote_low_f32x4(kept);
    const high = f64x2.promote_low_f32x4(v128.shuffle<f32>(kept, kept, 2, 3, 0, 1));
    sum = f64x2.add(sum, low);
    sumToo = f64x2.add(sumToo, high);
    squares = f64x2.add(squares, f64x2.mul(low, low));
    squaresToo = f64x2.add(squaresToo, f64x2.mul(high, high));
    k += 4;
  }
  sum = f64x2.add(sum, sumToo);
  squares = f64x2.add(squares, squaresToo);
  store<f64>(out, total(finite) as f64);
  store<f64>(out + 8, total(nulls) as f64);
  store<f64>(out + 16, f64x2.extract_lane(sum, 0) + f64x2.extract_lane(sum, 1));
  store<f64>(out + 24, f64x2.extract_lane(squares, 0) + f64x2.extract_lane(squares, 1));
  const least2 = f32x4.pmin(least, v128.shuffle<f32>(least, least, 2, 3, 0, 1));
  const most2 = f32x4.pmax(most, v128.shuffle<f32>(most, most, 2, 3, 0, 1));
  store<f64>(out + 32, min<f32>(f32x4.extract_lane(least2, 0), f32x4.extract_lane(least2, 1)) as f64);
  store<f64>(out + 40, max<f32>(f32x4.extract_lane(most2, 0), f32x4.extract_lane(most2, 1)) as f64);
}

// @ts-ignore: decorator
@inline
function total(v: v128): i32 {
  return i32x4.extract_lane(v, 0) + i32x4.extract_lane(v, 1) + i32x4.extract_lane(v, 2) + i32x4.extract_lane(v, 3);
}

/**
 * Traces `[traces][samples]` cut into pieces `thick` samples tall: `[piece][traces][thick]`. What the last piece lacks
 * is left as it was.
 */
export function cutSlices(from: usize, to: usize, traces: i32, samples: i32, thick: i32): void {
  const run = (thick as usize) << 2;
  for (let first: i32 = 0; first < samples; first += thick) {
    const count = min(thick, samples - first);
    for (let j: i32 = 0; j < traces; j++) {
      const at = from + (((j * samples + first) as usize) << 2);
      let k: i32 = 0;
      for (; k + 4 <= count; k += 4) {
        const o = (k as usize) << 2;
        v128.store(to + o, v128.load(at + o));
      }
      for (; k < count; k++) {
        const o = (k as usize) << 2;
        store<u32>(to + o, load<u32>(at + o));
      }
      to += run;
    }
  }
}

/**
 * Mix `count` words (a multiple of sixteen) into the sixteen at `state`: `x ← rotate(x ^ word, 13 + 2·lane) · prime`. The
 * four fours go side by side, since one mixing has to wait for the one before it.
 */
export function mixWords(at: usize, count: i32, state: usize): void {
  let a = v128.load(state);
  let b = v128.load(state + 16);
  let c = v128.load(state + 32);
  let d = v128.load(state + 48);
  for (let k: i32 = 0; k < count; k += 16) {
    const o = at + ((k as usize) << 2);
    a = mixed(v128.xor(a, v128.load(o)));
    b = mixed(v128.xor(b, v128.load(o + 16)));
    c = mixed(v128.xor(c, v128.load(o + 32)));
    d = mixed(v128.xor(d, v128.load(o + 48)));
  }
  v128.store(state, a);
  v128.store(state + 16, b);
  v128.store(state + 32, c);
  v128.store(state + 48, d);
}

// @ts-ignore: decorator
@inline
function mixed(w: v128): v128 {
  // a product with 2ⁿ in 64 bits holds what a rotation by n brings to both ends
  const shifts = i32x4(1 << 13, 1 << 15, 1 << 17, 1 << 19);
  const primes = i32x4(0x85ebca77, 0xc2b2ae3d, 0x27d4eb2f, 0x165667b1);
  const low = i64x2.extmul_low_i32x4_u(w, shifts);
  const high = i64x2.extmul_high_i32x4_u(w, shifts);
  const turned = v128.or(v128.shuffle<i32>(low, high, 0, 2, 4, 6), v128.shuffle<i32>(low, high, 1, 3, 5, 7));
  return i32x4.mul(turned, primes);
}
