// Means along slanted lines through an image: what a scan for planes takes twice, along strike and down the dip. Rows are sheared so
// that the lines stand upright, summed, and sheared back. Memory is laid out by the caller; offsets are in bytes.

/** Weights of a cubic between samples (Keys 1981), at `t` from the second of four. */
@inline
function cubic(t: f32, n: i32): f32 {
  const t2: f32 = t * t;
  const t3: f32 = t2 * t;
  if (n === 0) return -0.5 * t3 + t2 - 0.5 * t;
  if (n === 1) return 1.5 * t3 - 2.5 * t2 + 1;
  if (n === 2) return -1.5 * t3 + 2 * t2 + 0.5 * t;
  return 0.5 * t3 - 0.5 * t2;
}

/** `to[m] = Σ_n w_n(t) · from[m − 1 + n]`, fours at a time. */
function between(from: usize, to: usize, count: i32, t: f32, scale: f32): void {
  const a = f32x4.splat(scale * cubic(t, 0));
  const b = f32x4.splat(scale * cubic(t, 1));
  const c = f32x4.splat(scale * cubic(t, 2));
  const d = f32x4.splat(scale * cubic(t, 3));
  for (let m: i32 = 0; m < count; m += 4) {
    const at = from + ((m as usize) << 2);
    const low = f32x4.add(f32x4.mul(a, v128.load(at - 4)), f32x4.mul(b, v128.load(at)));
    const high = f32x4.add(f32x4.mul(c, v128.load(at, 4)), f32x4.mul(d, v128.load(at, 8)));
    v128.store(to + ((m as usize) << 2), f32x4.add(low, high));
  }
}

/** `to[m] = a[m] + b[m]`, fours at a time. */
function added(a: usize, b: usize, to: usize, count: i32): void {
  for (let m: usize = 0; m < (count as usize) << 2; m += 16)
    v128.store(to + m, f32x4.add(v128.load(a + m), v128.load(b + m)));
}

/** Where the sheared row begins: the whole part of minus its shear, less the margin. */
@inline
function baseOf(slope: f64, row: i32, margin: i32): i32 {
  return (Math.floor(-slope * (row as f64)) as i32) - margin;
}

/** Remainder of what may be negative. */
@inline
function remainder(n: i32, by: i32): i32 {
  const r = n % by;
  return r < 0 ? r + by : r;
}

/**
 * `out[r][b]` is the mean of `image[r + d][b + slope · d]` for `d` from −half to half. The sums are those of whole windows of
 * `2 half + 1` rows, each the end of one block of so many rows and the beginning of the next (van Herk 1992; Gil & Werman 1993):
 * three additions a sample however long the window is, and the same ones wherever the image is cut.
 * @param stride values from a row of the image to the next; `outStride` the same of the result
 * @param first number of the first row: rows are sheared from row nought
 * @param low, high rows, by number and end excluded, that count in a mean
 * @param scratch room for `3 · rows · wide + 2 · wide` values, `wide` as `slantedWide` says
 */
export function slantedMeans(
  image: usize,
  stride: i32,
  rows: i32,
  width: i32,
  slope: f64,
  first: i32,
  half: i32,
  low: i32,
  high: i32,
  wide: i32,
  scratch: usize,
  out: usize,
  outStride: i32,
): void {
  const pad: i32 = (Math.ceil(Math.abs(slope)) as i32) + 8;
  const margin: i32 = (Math.ceil(Math.abs(slope) * (half as f64)) as i32) + 6;
  const length: i32 = (width + 2 * margin + 3) & ~3;
  const bytes = (wide as usize) << 2;
  const line = scratch;
  const sum = scratch + bytes;
  const sheared = sum + bytes;
  const forward = sheared + bytes * (rows as usize);
  const backward = forward + bytes * (rows as usize);
  const inset = (pad as usize) << 2;
  const block = 2 * half + 1;
  memory.fill(line, 0, bytes);
  memory.fill(sum, 0, bytes);
  for (let r: i32 = 0; r < rows; r++) {
    const own = sheared + (r as usize) * bytes;
    memory.copy(line + inset + ((margin as usize) << 2), image + (((r * stride) as usize) << 2), (width as usize) << 2);
    const shear = slope * ((first + r) as f64);
    // between the two samples that the sheared place lies between
    between(line + inset - 4, own + inset, length, (shear - Math.ceil(shear) + 1) as f32, 1);
    // a sum along a line that leaves the rows at their sides is of no use, and is never read
    const sums = forward + (r as usize) * bytes;
    if (r === 0 || remainder(first + r, block) === 0) memory.copy(sums + inset, own + inset, (length as usize) << 2);
    else {
      const d = baseOf(slope, first + r, margin) - baseOf(slope, first + r - 1, margin);
      added(own + inset, sums - bytes + inset + ((d as usize) << 2), sums + inset, length);
    }
  }
  for (let r: i32 = rows - 1; r >= 0; r--) {
    const own = backward + (r as usize) * bytes;
    if (r === rows - 1 || remainder(first + r + 1, block) === 0)
      memory.copy(own + inset, sheared + (r as usize) * bytes + inset, (length as usize) << 2);
    else {
      const d = baseOf(slope, first + r, margin) - baseOf(slope, first + r + 1, margin);
      added(sheared + (r as usize) * bytes + inset, own + bytes + inset + ((d as usize) << 2), own + inset, length);
    }
  }
  const from: i32 = (margin - 4) & ~3;
  const count: i32 = (width + 12 + 3) & ~3;
  for (let r: i32 = 0; r < rows; r++) {
    const a = max(0, r - half);
    const b = min(rows - 1, r + half);
    const base = baseOf(slope, first + r, margin);
    const atA = backward + (a as usize) * bytes + inset + (((base - baseOf(slope, first + a, margin) + from) as usize) << 2);
    const atB = forward + (b as usize) * bytes + inset + (((base - baseOf(slope, first + b, margin) + from) as usize) << 2);
    const to = sum + inset + ((from as usize) << 2);
    const n = (first + a - remainder(first + a, block)) === (first + b - remainder(first + b, block));
    if (!n) added(atA, atB, to, count);
    // within one block: from its beginning, or to its end
    else if (a === 0 || remainder(first + a, block) === 0) memory.copy(to, atB, (count as usize) << 2);
    else memory.copy(to, atA, (count as usize) << 2);
    const shear = slope * ((first + r) as f64);
    const live = min(high, first + r + half + 1) - max(low, first + r - half);
    const scale: f32 = live > 0 ? 1 / (live as f32) : 0;
    // the last four may run over the row: it is written whole in the next place and copied
    between(sum + inset + ((margin as usize) << 2), line, (width + 3) & ~3, (-shear - Math.floor(-shear)) as f32, scale);
    memory.copy(out + (((r * outStride) as usize) << 2), line, (width as usize) << 2);
  }
}

/** Where `values` are above `best`, keep them and their number. */
export function keepBest(values: usize, best: usize, which: usize, number: f32, count: i32): void {
  const own = f32x4.splat(number);
  for (let n: usize = 0; n < (count as usize) << 2; n += 16) {
    const v = v128.load(values + n);
    const held = v128.load(best + n);
    const better = f32x4.gt(v, held);
    v128.store(best + n, v128.bitselect(v, held, better));
    v128.store(which + n, v128.bitselect(own, v128.load(which + n), better));
  }
}
