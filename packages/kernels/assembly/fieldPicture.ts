// A picture of a field: a cubic along rows (Catmull & Rom 1974), linear across them, values turned into colours by a table.
// Memory is laid out by the caller; offsets are in bytes.

/** Nothing is drawn beyond the ends; rounding may not lose the ends themselves. */
const EDGE: f64 = 1e-6;
/** Places are counted in parts of 2⁻³² along a line of pixels. */
const UNIT: f64 = 4294967296;
const PART: f32 = 1.0 / 16777216;

/** First pixel of a line that lies at `low` to `high`, where pixel `x` lies at `at + x·step`. */
function firstIn(at: f64, step: f64, low: f64, high: f64): f64 {
  if (step == 0) return at >= low && at <= high ? 0 : Infinity;
  return Math.ceil(((step > 0 ? low : high) - at) / step);
}

/** The last such pixel. */
function lastIn(at: f64, step: f64, low: f64, high: f64): f64 {
  if (step == 0) return at >= low && at <= high ? Infinity : -1;
  return Math.floor(((step > 0 ? high : low) - at) / step);
}

// @ts-ignore: decorator
@inline
function whole(place: i64, most: i32): i32 {
  return max(0, min(most, (place >> 32) as i32));
}

// @ts-ignore: decorator
@inline
function part(place: i64): f32 {
  return place < 0 ? 0 : f32(i32((place >> 8) & 0xffffff)) * PART;
}

/** What the four samples about a place count for, `f` past the second of them. */
// @ts-ignore: decorator
@inline
function weights(f: f32): v128 {
  const t = f32x4.splat(f);
  const third = f32x4.add(f32x4(1, -2.5, 2, -0.5), f32x4.mul(t, f32x4(-0.5, 1.5, -1.5, 0.5)));
  const second = f32x4.add(f32x4(-0.5, 0, 0.5, 0), f32x4.mul(t, third));
  return f32x4.add(f32x4(0, 1, 0, 0), f32x4.mul(t, second));
}

// @ts-ignore: decorator
@inline
function total(p: v128): f32 {
  const q = f32x4.add(p, v128.shuffle<f32>(p, p, 2, 3, 0, 1));
  return f32x4.extract_lane(q, 0) + f32x4.extract_lane(q, 1);
}

/** The careful way, at ends and beside missing samples: of a missing neighbour, what there is; of a missing end, the nearer. */
function between(start: usize, last: i32, k: i32, f: f32): f32 {
  const b = load<f32>(start + ((k as usize) << 2));
  const c = load<f32>(start + ((min(last, k + 1) as usize) << 2));
  if (b != b || c != c) return f < 0.5 ? b : c;
  let a = load<f32>(start + ((max(0, k - 1) as usize) << 2));
  let d = load<f32>(start + ((min(last, k + 2) as usize) << 2));
  if (a != a) a = b;
  if (d != d) d = c;
  const half: f32 = 0.5;
  return b + half * f * (c - a + f * (2 * a - 5 * b + 4 * c - d + f * (3 * (b - c) + d - a)));
}

/** Colour a pixel by a value between two rows; where one is missing, of the nearer. */
// @ts-ignore: decorator
@inline
function shade(to: usize, v0: f32, v1: f32, g: f32, colors: usize, top: i32, low: f32, scale: f32): void {
  let v = v0 + g * (v1 - v0);
  if (v != v) {
    v = g < 0.5 ? v0 : v1;
    if (v != v) return;
  }
  const half: f32 = 0.5;
  const n = max(0, min(top, i32((v - low) * scale + half)));
  store<u32>(to, load<u32>(colors + ((n as usize) << 2)));
}

/** A line of pixels that all lie at one sample: what is in view of every row is resampled once, into `line`. */
function levelLine(
  data: usize,
  samples: i32,
  end: i32,
  k: i64,
  r: i64,
  rStep: i64,
  to: usize,
  stop: usize,
  line: usize,
  colors: usize,
  top: i32,
  low: f32,
  scale: f32,
): void {
  const last = samples - 1;
  const cell = whole(k, last);
  const f = part(k);
  const w = weights(f);
  const inner = cell > 0 && cell < last - 1;
  const steps = ((stop - to) >> 2) as i64;
  const one = whole(r, end);
  const two = whole(r + steps * rStep, end);
  const first = min(one, two);
  const final = min(end, max(one, two) + 1);
  for (let row = first; row <= final; row++) {
    const start = data + (((row * samples) as usize) << 2);
    let v: f32 = NaN;
    if (inner) v = total(f32x4.mul(v128.load(start + (((cell - 1) as usize) << 2)), w));
    if (v != v) v = between(start, last, cell, f);
    store<f32>(line + ((row as usize) << 2), v);
  }
  store<f32>(line + (((final + 1) as usize) << 2), load<f32>(line + ((final as usize) << 2)));
  for (; to <= stop; to += 4, r += rStep) {
    const at = line + ((whole(r, end) as usize) << 2);
    shade(to, load<f32>(at), load<f32>(at + 4), part(r), colors, top, low, scale);
  }
}

/** A line of pixels at any angle. */
function turnedLine(
  data: usize,
  samples: i32,
  end: i32,
  k: i64,
  kStep: i64,
  r: i64,
  rStep: i64,
  to: usize,
  stop: usize,
  colors: usize,
  top: i32,
  low: f32,
  scale: f32,
): void {
  const last = samples - 1;
  const bytes = (samples as usize) << 2;
  for (; to <= stop; to += 4, k += kStep, r += rStep) {
    const cell = whole(k, last);
    const row = whole(r, end);
    const f = part(k);
    const g = part(r);
    const start = data + (((row * samples) as usize) << 2);
    if (cell > 0 && cell < last - 1 && row < end) {
      const at = start + (((cell - 1) as usize) << 2);
      const a = v128.load(at);
      const across = f32x4.add(a, f32x4.mul(f32x4.splat(g), f32x4.sub(v128.load(at + bytes), a)));
      const v = total(f32x4.mul(across, weights(f)));
      if (v == v) {
        shade(to, v, v, 0, colors, top, low, scale);
        continue;
      }
    }
    const v0 = between(start, last, cell, f);
    shade(to, v0, row < end ? between(start + bytes, last, cell, f) : v0, g, colors, top, low, scale);
  }
}

/**
 * Colour the pixels `[height][width]` at `out` (32 bits each) from `data`, `[rows][samples]` floats. A pixel lies at
 * sample `k0 + x·kx + y·ky` of row `r0 + x·rx + y·ry`; its value takes colour `(value − low)·scale` of the table.
 * `scratch` holds a float for each row, and two more.
 */
export function fieldPicture(
  data: usize,
  rows: i32,
  samples: i32,
  out: usize,
  scratch: usize,
  width: i32,
  height: i32,
  k0: f64,
  kx: f64,
  ky: f64,
  r0: f64,
  rx: f64,
  ry: f64,
  colors: usize,
  count: i32,
  low: f32,
  scale: f32,
): void {
  const end = rows - 1;
  const kMost = ((samples - 1) as f64) + EDGE;
  const rMost = (end as f64) + EDGE;
  const kStep = (kx * UNIT) as i64;
  const rStep = (rx * UNIT) as i64;
  memory.fill(out, 0, ((width * height) as usize) << 2);
  for (let y: i32 = 0; y < height; y++) {
    const kRow = k0 + (y as f64) * ky;
    const rRow = r0 + (y as f64) * ry;
    const first = max(0, max(firstIn(kRow, kx, -EDGE, kMost), firstIn(rRow, rx, -EDGE, rMost)));
    const final = min((width - 1) as f64, min(lastIn(kRow, kx, -EDGE, kMost), lastIn(rRow, rx, -EDGE, rMost)));
    if (!(first <= final)) continue;
    const k = ((kRow + first * kx) * UNIT) as i64;
    const r = ((rRow + first * rx) * UNIT) as i64;
    const line = out + (((y * width) as usize) << 2);
    const to = line + (((first as i32) as usize) << 2);
    const stop = line + (((final as i32) as usize) << 2);
    if (kx == 0) levelLine(data, samples, end, k, r, rStep, to, stop, scratch, colors, count - 1, low, scale);
    else turnedLine(data, samples, end, k, kStep, r, rStep, to, stop, colors, count - 1, low, scale);
  }
}
