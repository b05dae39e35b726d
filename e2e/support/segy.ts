/** A 2D line as SEG-Y: CDP and shotpoint in bytes 21 and 197, X and Y in 181, a wavelet that follows the CDP. */
export function lineSegy(from: [number, number], to: [number, number], traces = 120, samples = 250): Buffer {
  const traceBytes = 240 + 4 * samples;
  const out = Buffer.alloc(3600 + traces * traceBytes);
  out.fill(0x40, 0, 3200);
  out.writeInt16BE(4000, 3216);
  out.writeInt16BE(samples, 3220);
  out.writeInt16BE(5, 3224);
  out.writeInt16BE(0x100, 3500);
  out.writeInt16BE(1, 3502);
  for (let t = 0; t < traces; t++) {
    const at = 3600 + t * traceBytes;
    const f = t / (traces - 1);
    out.writeInt32BE(t + 1, at);
    out.writeInt32BE(100 + t, at + 20);
    out.writeInt16BE(-10, at + 70);
    out.writeInt32BE(Math.round(10 * (from[0] + f * (to[0] - from[0]))), at + 180);
    out.writeInt32BE(Math.round(10 * (from[1] + f * (to[1] - from[1]))), at + 184);
    out.writeInt32BE(500 + Math.floor(t / 2), at + 196);
    for (let k = 0; k < samples; k++) out.writeFloatBE(1000 * Math.sin((k - t / 8) / 3), at + 240 + 4 * k);
  }
  return out;
}
