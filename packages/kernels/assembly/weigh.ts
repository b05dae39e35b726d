// Weighted sums of neighbours, which smoothing, derivatives and filters along any axis of a block all are.
// Memory is laid out by the caller; offsets are in bytes.

/**
 * `to[n] = Σ_d weights[d] · from[n + d · stride]` for `length` values, `stride` in values. Along samples the stride is 1, along
 * traces that of a trace, along lines that of a line.
 */
export function weigh(from: usize, to: usize, length: i32, stride: i32, weights: usize, count: i32): void {
  const step = (stride as usize) << 2;
  let n: i32 = 0;
  for (; n + 16 <= length; n += 16) {
    let at = from + ((n as usize) << 2);
    let a = f32x4.splat(0);
    let b = f32x4.splat(0);
    let c = f32x4.splat(0);
    let e = f32x4.splat(0);
    for (let d: i32 = 0; d < count; d++, at += step) {
      const w = f32x4.splat(load<f32>(weights + ((d as usize) << 2)));
      a = f32x4.add(a, f32x4.mul(w, v128.load(at)));
      b = f32x4.add(b, f32x4.mul(w, v128.load(at, 16)));
      c = f32x4.add(c, f32x4.mul(w, v128.load(at, 32)));
      e = f32x4.add(e, f32x4.mul(w, v128.load(at, 48)));
    }
    const o = to + ((n as usize) << 2);
    v128.store(o, a);
    v128.store(o, b, 16);
    v128.store(o, c, 32);
    v128.store(o, e, 48);
  }
  for (; n < length; n++) {
    let at = from + ((n as usize) << 2);
    let a: f32 = 0;
    for (let d: i32 = 0; d < count; d++, at += step) a += load<f32>(weights + ((d as usize) << 2)) * load<f32>(at);
    store<f32>(to + ((n as usize) << 2), a);
  }
}
