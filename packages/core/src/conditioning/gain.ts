/**
 * Automatic gain control: each sample divided by the rms of a window around it. Windows are cut at the ends.
 * @param data `[trace][sample]`, changed in place; NaN stays; @param half samples on each side
 */
export function agc(data: Float32Array, count: number, half: number): void {
  const squares = new Float64Array(count + 1);
  const live = new Int32Array(count + 1);
  for (let offset = 0; offset < data.length; offset += count) {
    for (let k = 0; k < count; k++) {
      const v = data[offset + k];
      squares[k + 1] = squares[k] + (v === v ? v * v : 0);
      live[k + 1] = live[k] + (v === v ? 1 : 0);
    }
    for (let k = 0; k < count; k++) {
      const [a, b] = [Math.max(0, k - half), Math.min(count, k + half + 1)];
      const n = live[b] - live[a];
      const rms = n > 0 ? Math.sqrt((squares[b] - squares[a]) / n) : 0;
      data[offset + k] = rms > 0 ? data[offset + k] / rms : data[offset + k];
    }
  }
}

/** Gain that rises with time: `(t / t₀)^power · 10^(dB·(t − t₀)/20)`, t in seconds, 1 at the reference time. */
export function timeGain(
  data: Float32Array,
  count: number,
  firstMs: number,
  stepMs: number,
  referenceMs: number,
  power: number,
  dbPerSecond: number,
): void {
  const gains = Float64Array.from({ length: count }, (_, k) => {
    const t = Math.max(1e-3, (firstMs + k * stepMs) / 1000);
    const t0 = Math.max(1e-3, referenceMs / 1000);
    return (t / t0) ** power * 10 ** ((dbPerSecond * (t - t0)) / 20);
  });
  for (let n = 0; n < data.length; n++) data[n] *= gains[n % count];
}

/** Bring each trace to a given rms within a window of samples; traces without a sample there stay as they are. */
export function balance(data: Float32Array, count: number, from: number, to: number, target: number): void {
  for (let offset = 0; offset < data.length; offset += count) {
    let [sum, n] = [0, 0];
    for (let k = from; k < to; k++) {
      const v = data[offset + k];
      if (v === v) {
        sum += v * v;
        n++;
      }
    }
    const rms = n > 0 ? Math.sqrt(sum / n) : 0;
    if (rms > 0) for (let k = 0; k < count; k++) data[offset + k] *= target / rms;
  }
}

/**
 * Mute a trace on one side of a place, with a cosine ramp that ends there.
 * @param at sample (fractional) of the place; @param taper samples of the ramp, on the side that is kept
 */
export function mute(
  data: Float32Array,
  offset: number,
  count: number,
  at: number,
  side: 'above' | 'below',
  taper: number,
): void {
  for (let k = 0; k < count; k++) {
    const beyond = side === 'above' ? k - at : at - k;
    if (beyond >= taper && beyond >= 0) continue;
    data[offset + k] *= beyond < 0 || taper <= 0 ? 0 : 0.5 - 0.5 * Math.cos((Math.PI * beyond) / taper);
  }
}
