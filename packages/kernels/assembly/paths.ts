// Least cost of paths through pairs of samples of two logs, a row (one sample of the reference) a call. Rows lie in rings of
// `RING` each, one ring after another: costs of pairs, least of all states, and the three states. A row has `PAD` floats
// before its first sample, so that steps from before it are read as impossible.

const RING: usize = 8;
const PAD: usize = 8;
/** Floats of a step before its parts: samples back in either well, cost of its bend, number of parts, where it starts. */
const STEP: usize = 20;
const PART: usize = 16;

// @ts-ignore: decorator
@inline
function row(rings: usize, ring: usize, i: i32, bytes: usize): usize {
  return rings + (ring * RING + ((i as usize) & (RING - 1))) * bytes + (PAD << 2);
}

/** Put into every step where in the rings it starts from and what it passes, for row `i`. */
function aim(rings: usize, i: i32, bytes: usize, steps: usize, count: i32): void {
  let at = steps;
  for (let q: i32 = 0; q < count; q++) {
    const parts = load<i32>(at, 12);
    store<u32>(at, (row(rings, 1, i - load<i32>(at), bytes) - ((load<i32>(at, 4) as usize) << 2)) as u32, 16);
    at += STEP;
    for (let k: i32 = 0; k < parts; k++) {
      store<u32>(at, (row(rings, 0, i - load<i32>(at), bytes) - ((load<i32>(at, 4) as usize) << 2)) as u32, 12);
      at += PART;
    }
  }
}

/**
 * One row of costs, `low` to `high`, into the rings, and the step by which each pair is best reached into `ways`.
 * @param stride floats of a row with its pads
 * @param steps records of what a path may do: `STEP` bytes, then `PART` bytes for each pair that is passed
 */
export function pathRow(
  rings: usize,
  ways: usize,
  i: i32,
  low: i32,
  high: i32,
  stride: i32,
  steps: usize,
  count: i32,
  endSample: f32,
  gapOpen: f32,
  gapSample: f32,
  start: i32,
): void {
  const bytes = (stride as usize) << 2;
  const least = row(rings, 1, i, bytes);
  const match = row(rings, 2, i, bytes);
  const missing = row(rings, 3, i, bytes);
  const extra = row(rings, 4, i, bytes);
  const matchAbove = row(rings, 2, i - 1, bytes);
  const missingAbove = row(rings, 3, i - 1, bytes);
  const extraAbove = row(rings, 4, i - 1, bytes);
  const never = f32x4.splat(Infinity);
  const open = f32x4.splat(gapOpen);
  const each = f32x4.splat(gapSample);
  aim(rings, i, bytes, steps, count);
  for (let k: usize = 0; k < bytes; k += 16) {
    v128.store(least - (PAD << 2) + k, never);
    v128.store(match - (PAD << 2) + k, never);
    v128.store(missing - (PAD << 2) + k, never);
    v128.store(extra - (PAD << 2) + k, never);
  }
  for (let j: i32 = low; j <= high; j += 4) {
    const k = (j as usize) << 2;
    let best = never;
    if (i == 0) best = f32x4.mul(f32x4.splat(endSample), f32x4.add(f32x4.splat(j as f32), f32x4(0, 1, 2, 3)));
    else if (j == 0) best = f32x4.replace_lane(never, 0, endSample * (i as f32));
    let way = i32x4.splat(start);
    let at = steps;
    for (let q: i32 = 0; q < count; q++) {
      const parts = load<i32>(at, 12);
      const before = v128.load((load<u32>(at, 16) as usize) + k);
      if (v128.any_true(f32x4.lt(before, best))) {
        let along = f32x4.add(before, f32x4.splat(load<f32>(at, 8)));
        let part = at + STEP;
        for (let p: i32 = 0; p < parts; p++) {
          const passed = v128.load((load<u32>(part, 12) as usize) + k);
          along = f32x4.add(along, f32x4.mul(f32x4.splat(load<f32>(part, 8)), passed));
          part += PART;
        }
        const better = f32x4.lt(along, best);
        best = v128.bitselect(along, best, better);
        way = v128.bitselect(i32x4.splat(q), way, better);
      }
      at += STEP + (parts as usize) * PART;
    }
    v128.store(match + k, best);
    const half = i16x8.narrow_i32x4_u(way, way);
    store<i32>(ways + (j as usize), i32x4.extract_lane(i8x16.narrow_i16x8_u(half, half), 0));
    if (i > 0) {
      const from = f32x4.add(f32x4.min(v128.load(matchAbove + k), v128.load(extraAbove + k)), open);
      v128.store(missing + k, f32x4.add(f32x4.min(from, v128.load(missingAbove + k)), each));
    }
  }
  // lanes past the last pair are of no path
  for (let j: i32 = high + 1; j <= high + 4; j++) {
    store<f32>(match + ((j as usize) << 2), Infinity);
    store<f32>(missing + ((j as usize) << 2), Infinity);
  }
  let behind: f32 = Infinity;
  for (let j: i32 = max(1, low); j <= high; j++) {
    const k = (j as usize) << 2;
    const opened = min(load<f32>(match + k - 4), load<f32>(missing + k - 4)) + gapOpen;
    behind = min(opened, behind) + gapSample;
    store<f32>(extra + k, behind);
  }
  for (let j: i32 = low; j <= high; j += 4) {
    const k = (j as usize) << 2;
    const any = f32x4.min(f32x4.min(v128.load(match + k), v128.load(missing + k)), v128.load(extra + k));
    v128.store(least + k, any);
  }
}
