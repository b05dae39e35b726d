// Variance over a window of neighbouring traces (Marfurt et al. 1998, Geophysics 63, 1150–1165), one trace at a time.
// Memory is laid out by the caller; offsets are in bytes.

/** Zero `count` floats at `at`. */
export function clear(at: usize, count: i32): void {
  memory.fill(at, 0, (count as usize) << 2);
}

/** Add a trace at `from` to running sums of values (`sum`) and squares (`squares`), four samples at a time. */
export function addTrace(from: usize, sum: usize, squares: usize, count: i32): void {
  let k: i32 = 0;
  for (; k + 4 <= count; k += 4) {
    const o = (k as usize) << 2;
    const v = v128.load(from + o);
    v128.store(sum + o, f32x4.add(v128.load(sum + o), v));
    v128.store(squares + o, f32x4.add(v128.load(squares + o), f32x4.mul(v, v)));
  }
  for (; k < count; k++) {
    const o = (k as usize) << 2;
    const v = load<f32>(from + o);
    store<f32>(sum + o, load<f32>(sum + o) + v);
    store<f32>(squares + o, load<f32>(squares + o) + v * v);
  }
}

/** Spread of `traces` traces about their mean at each sample: `spread = squares − sum² / traces`, in place of `sum`. */
export function spread(sum: usize, squares: usize, count: i32, traces: f32): void {
  const part = f32x4.splat(1.0 / traces);
  let k: i32 = 0;
  for (; k + 4 <= count; k += 4) {
    const o = (k as usize) << 2;
    const s = v128.load(sum + o);
    v128.store(sum + o, f32x4.sub(v128.load(squares + o), f32x4.mul(f32x4.mul(s, s), part)));
  }
  for (; k < count; k++) {
    const o = (k as usize) << 2;
    const s = load<f32>(sum + o);
    store<f32>(sum + o, load<f32>(squares + o) - (s * s) / traces);
  }
}

/** Ratio of spread to energy over `half` samples above and below: the variance, 0 to 1. */
export function ratioOverHeight(spreads: usize, squares: usize, out: usize, count: i32, half: i32): void {
  let a: f64 = 0;
  let b: f64 = 0;
  const first = min(half, count - 1);
  for (let k: i32 = 0; k <= first; k++) {
    a += load<f32>(spreads + ((k as usize) << 2));
    b += load<f32>(squares + ((k as usize) << 2));
  }
  for (let k: i32 = 0; k < count; k++) {
    const value = b > 0 ? a / b : 0;
    store<f32>(out + ((k as usize) << 2), value < 0 ? 0 : value > 1 ? 1 : (value as f32));
    const enter = k + half + 1;
    if (enter < count) {
      a += load<f32>(spreads + ((enter as usize) << 2));
      b += load<f32>(squares + ((enter as usize) << 2));
    }
    const leave = k - half;
    if (leave >= 0) {
      a -= load<f32>(spreads + ((leave as usize) << 2));
      b -= load<f32>(squares + ((leave as usize) << 2));
    }
  }
}
