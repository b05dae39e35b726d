import { addTrace, clear, spread, ratioOverHeight } from './variance';

/**
 * One line of variance: for each of `traces` traces at `lines[radius]`, from neighbours `radius` lines and traces away.
 * `data` holds `2·radius + 1` lines of `traces + 2·radius` traces of `samples` floats; `live` one byte a trace (1 = use).
 * `scratch` holds `4·samples` floats. Traces with fewer than two live neighbours give NaN.
 */
export function varianceLine(
  data: usize,
  live: usize,
  scratch: usize,
  out: usize,
  traces: i32,
  samples: i32,
  radius: i32,
  half: i32,
): void {
  const width = traces + 2 * radius;
  const bytes = (samples as usize) << 2;
  const sum = scratch;
  const squares = scratch + bytes;
  for (let j: i32 = 0; j < traces; j++) {
    clear(sum, samples);
    clear(squares, samples);
    let used: i32 = 0;
    for (let di: i32 = 0; di <= 2 * radius; di++)
      for (let dj: i32 = 0; dj <= 2 * radius; dj++) {
        const n = di * width + j + dj;
        if (load<u8>(live + (n as usize)) == 0) continue;
        addTrace(data + (n as usize) * bytes, sum, squares, samples);
        used++;
      }
    const to = out + (j as usize) * bytes;
    if (used < 2 || load<u8>(live + ((radius * width + j + radius) as usize)) == 0) {
      for (let k: i32 = 0; k < samples; k++) store<f32>(to + ((k as usize) << 2), NaN);
      continue;
    }
    spread(sum, squares, samples, used as f32);
    ratioOverHeight(sum, squares, to, samples, half);
  }
}
