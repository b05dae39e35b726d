// Variance over a window of neighbouring traces (Marfurt et al. 1998, Geophysics 63, 1150–1165). Sums are taken along a
// line once for each line and then across lines, so that the cost grows with the radius and not with its square.
// Memory is laid out by the caller; offsets are in bytes.

/** How many samples of a trace are numbers. */
export function liveSamples(at: usize, count: i32): i32 {
  let some = i32x4.splat(0);
  let k: i32 = 0;
  for (; k + 4 <= count; k += 4) {
    const v = v128.load(at + ((k as usize) << 2));
    some = i32x4.sub(some, f32x4.eq(v, v));
  }
  let live = i32x4.extract_lane(some, 0) + i32x4.extract_lane(some, 1) + i32x4.extract_lane(some, 2) + i32x4.extract_lane(some, 3);
  for (; k < count; k++) {
    const v = load<f32>(at + ((k as usize) << 2));
    if (v == v) live++;
  }
  return live;
}

/** Put zeros where traces have no number; `mask`, where it is given, gets 1 for each number and 0 for each other. */
export function withoutNulls(at: usize, mask: usize, count: i32): void {
  const one = f32x4.splat(1);
  let k: i32 = 0;
  for (; k + 4 <= count; k += 4) {
    const o = (k as usize) << 2;
    const v = v128.load(at + o);
    const there = f32x4.eq(v, v);
    v128.store(at + o, v128.and(v, there));
    if (mask) v128.store(mask + o, v128.and(one, there));
  }
  for (; k < count; k++) {
    const o = (k as usize) << 2;
    const v = load<f32>(at + o);
    const there = v == v;
    if (!there) store<f32>(at + o, 0);
    if (mask) store<f32>(mask + o, there ? 1 : 0);
  }
}

/** Sums of masks over `radius` traces on each side. */
export function rowCounts(masks: usize, traces: i32, samples: i32, radius: i32, out: usize): void {
  const bytes = (samples as usize) << 2;
  for (let j: i32 = 0; j < traces; j++)
    for (let k: i32 = 0; k < samples; k++) {
      const o = (j as usize) * bytes + ((k as usize) << 2);
      let sum: f32 = 0;
      for (let d: i32 = 0; d <= 2 * radius; d++) sum += load<f32>(masks + o + (d as usize) * bytes);
      store<f32>(out + o, sum);
    }
}

/**
 * Sums of values and of squares over `radius` traces on each side, for every trace of a line but the outer `radius`:
 * `data` holds `traces + 2·radius` traces, `sums` and `squares` get `traces`.
 */
export function rowSums(data: usize, traces: i32, samples: i32, radius: i32, sums: usize, squares: usize): void {
  const bytes = (samples as usize) << 2;
  const width = 2 * radius;
  for (let j: i32 = 0; j < traces; j++) {
    const from = data + (j as usize) * bytes;
    const to = (j as usize) * bytes;
    let k: i32 = 0;
    for (; k + 4 <= samples; k += 4) {
      const o = (k as usize) << 2;
      let at = from + o;
      let v = v128.load(at);
      let s = v;
      let q = f32x4.mul(v, v);
      for (let d: i32 = 0; d < width; d++) {
        at += bytes;
        v = v128.load(at);
        s = f32x4.add(s, v);
        q = f32x4.add(q, f32x4.mul(v, v));
      }
      v128.store(sums + to + o, s);
      v128.store(squares + to + o, q);
    }
    for (; k < samples; k++) {
      const o = (k as usize) << 2;
      let s: f32 = 0;
      let q: f32 = 0;
      for (let d: i32 = 0; d <= width; d++) {
        const v = load<f32>(from + o + (d as usize) * bytes);
        s += v;
        q += v * v;
      }
      store<f32>(sums + to + o, s);
      store<f32>(squares + to + o, q);
    }
  }
}

/**
 * Variance of a line from the sums of `lines` lines, kept in a ring `[lines][traces][samples]` whose oldest is `first`.
 * `counts` says how many traces each window has, 0 where there is no trace to give it for; where traces have gaps,
 * `sampleCounts` says it for each sample in a ring as the sums are, and is 0 otherwise. Samples `from` to `from + count`
 * of each trace are written: spread about the mean as a part of the energy, over `half` samples above and below.
 * `scratch` holds `2·samples` floats.
 */
export function slidingRatio(
  sums: usize,
  squares: usize,
  counts: usize,
  sampleCounts: usize,
  scratch: usize,
  out: usize,
  traces: i32,
  samples: i32,
  lines: i32,
  first: i32,
  half: i32,
  from: i32,
  count: i32,
): void {
  const bytes = (samples as usize) << 2;
  const lineBytes = (traces as usize) * bytes;
  for (let j: i32 = 0; j < traces; j++) {
    const to = out + (((j * count) as usize) << 2);
    const used = load<i32>(counts + ((j as usize) << 2));
    if (used < 2) {
      for (let k: i32 = 0; k < count; k++) store<f32>(to + ((k as usize) << 2), NaN);
      continue;
    }
    const at = (j as usize) * bytes;
    spreads(sums + at, squares + at, scratch, samples, lines, lineBytes, first, 1.0 / (used as f32));
    if (sampleCounts) gaps(sums + at, squares + at, sampleCounts + at, scratch, samples, lines, lineBytes);
    ratios(scratch, to, samples, half, from, count);
    if (sampleCounts) forget(sampleCounts + at, to, lines, lineBytes, from, count);
  }
}

/** Spread about the mean and energy of each sample, side by side: `squares − sums² / traces`, `squares`. */
function spreads(
  sums: usize,
  squares: usize,
  out: usize,
  samples: i32,
  lines: i32,
  lineBytes: usize,
  first: i32,
  part: f32,
): void {
  const parts = f32x4.splat(part);
  let k: i32 = 0;
  for (; k + 4 <= samples; k += 4) {
    const o = (k as usize) << 2;
    let s = f32x4.splat(0);
    let q = f32x4.splat(0);
    for (let d: i32 = 0; d < lines; d++) {
      let n = first + d;
      if (n >= lines) n -= lines;
      const at = (n as usize) * lineBytes + o;
      s = f32x4.add(s, v128.load(sums + at));
      q = f32x4.add(q, v128.load(squares + at));
    }
    const spread = f32x4.sub(q, f32x4.mul(f32x4.mul(s, s), parts));
    v128.store(out + (o << 1), v128.shuffle<f32>(spread, q, 0, 4, 1, 5));
    v128.store(out + (o << 1) + 16, v128.shuffle<f32>(spread, q, 2, 6, 3, 7));
  }
  for (; k < samples; k++) {
    const o = (k as usize) << 2;
    let s: f32 = 0;
    let q: f32 = 0;
    for (let d: i32 = 0; d < lines; d++) {
      let n = first + d;
      if (n >= lines) n -= lines;
      const at = (n as usize) * lineBytes + o;
      s += load<f32>(sums + at);
      q += load<f32>(squares + at);
    }
    store<f32>(out + (o << 1), q - s * s * part);
    store<f32>(out + (o << 1) + 4, q);
  }
}

/** How many traces have a sample. */
function countAt(counts: usize, k: i32, lines: i32, lineBytes: usize): f32 {
  let n: f32 = 0;
  for (let d: i32 = 0; d < lines; d++) n += load<f32>(counts + (d as usize) * lineBytes + ((k as usize) << 2));
  return n;
}

/** Spreads where traces have gaps: about the mean of those that have the sample; nothing where fewer than two have. */
function gaps(
  sums: usize,
  squares: usize,
  counts: usize,
  out: usize,
  samples: i32,
  lines: i32,
  lineBytes: usize,
): void {
  for (let k: i32 = 0; k < samples; k++) {
    const n = countAt(counts, k, lines, lineBytes);
    let s: f32 = 0;
    let q: f32 = 0;
    for (let d: i32 = 0; d < lines; d++) {
      const o = (d as usize) * lineBytes + ((k as usize) << 2);
      s += load<f32>(sums + o);
      q += load<f32>(squares + o);
    }
    const to = out + ((k as usize) << 3);
    store<f32>(to, n < 2 ? 0 : q - (s * s) / n);
    store<f32>(to + 4, n < 2 ? 0 : q);
  }
}

/** Samples that fewer than two traces have get no value. */
function forget(counts: usize, out: usize, lines: i32, lineBytes: usize, from: i32, count: i32): void {
  for (let n: i32 = 0; n < count; n++)
    if (countAt(counts, from + n, lines, lineBytes) < 2) store<f32>(out + ((n as usize) << 2), NaN);
}

/** Ratio of the two over a window that slides down, held in double precision: both in one register. */
function ratios(pairs: usize, out: usize, samples: i32, half: i32, from: i32, count: i32): void {
  let acc = f64x2.splat(0);
  const begin = max(0, from - half);
  const end = min(samples - 1, from + half);
  for (let k = begin; k <= end; k++) acc = f64x2.add(acc, pairAt(pairs, k));
  for (let n: i32 = 0; n < count; n++) {
    const k = from + n;
    const a = f64x2.extract_lane(acc, 0);
    const b = f64x2.extract_lane(acc, 1);
    const value = b > 0 ? min(1.0, max(0.0, a / b)) : 0;
    store<f32>(out + ((n as usize) << 2), value as f32);
    const enter = k + half + 1;
    const leave = k - half;
    if (enter < samples) acc = f64x2.add(acc, pairAt(pairs, enter));
    if (leave >= 0) acc = f64x2.sub(acc, pairAt(pairs, leave));
  }
}

// @ts-ignore: an attribute of the language
@inline
function pairAt(pairs: usize, k: i32): v128 {
  return f64x2.promote_low_f32x4(v128.load64_zero(pairs + ((k as usize) << 3)));
}
