/** A small file as most are: revision 1, the usual byte positions, nothing missing. */
export const PLAIN_SEGY = {
  format: 1,
  littleEndian: false,
  revision: 1,
  inlines: [1, 2, 3, 4, 5, 6],
  crosslines: [11, 12, 13, 14, 15, 16, 17],
  samples: 30,
  intervalUs: 4000,
  bytes: { inline: 189, crossline: 193, x: 181, y: 185 },
  scalar: 1,
  origin: [1000, 2000],
  perInline: [0, 25],
  perCrossline: [25, 0],
  order: 'inline',
  missing: new Set(),
  twice: new Set(),
  ascii: false,
  extended: 0,
  delayMs: 0,
};
export const BYTES = { 1: 4, 2: 4, 3: 2, 5: 4, 6: 8, 8: 1, 10: 4, 11: 2, 16: 1 };
/** IBM float bits by the definition: sign, base-16 exponent in excess 64, 24-bit fraction. */
function ibm(value) {
  if (value === 0) return 0;
  let m = Math.abs(value);
  let e = Math.ceil(Math.log2(m) / 4) + 1;
  m /= 16 ** e;
  while (m < 1 / 16) {
    m *= 16;
    e--;
  }
  let fraction = Math.round(m * 2 ** 24);
  if (fraction >= 2 ** 24) {
    fraction = Math.round(fraction / 16);
    e++;
  }
  return ((value < 0 ? 0x80000000 : 0) + (e + 64) * 2 ** 24 + fraction) >>> 0;
}
/** Sample values that every format holds exactly. */
export function exactValue(format, i, j, k) {
  const base = (i * 31 + j * 17 + k * 7) % 120;
  if (format === 10 || format === 11 || format === 16) return base;
  const signed = base - 60;
  return format === 1 || format === 5 || format === 6 ? signed / 4 : signed;
}
/** The file, and the value of every bin's trace that should be read. */
export function makeSegy(spec, shuffle) {
  const { format, littleEndian: le, inlines, crosslines, samples } = spec;
  const bins = [];
  const ni = inlines.length;
  const nj = crosslines.length;
  for (let n = 0; n < ni * nj; n++) {
    const bin = spec.order === 'crossline' ? (n % ni) * nj + Math.floor(n / ni) : n;
    if (spec.missing.has(bin)) continue;
    bins.push(bin);
    if (spec.twice.has(bin)) bins.push(bin);
  }
  const ordered = spec.order === 'shuffled' ? shuffle(bins.length).map((n) => bins[n]) : bins;
  const traceBytes = 240 + samples * BYTES[format];
  const start = 3600 + 3200 * spec.extended;
  const out = new Uint8Array(start + ordered.length * traceBytes);
  const view = new DataView(out.buffer);
  out.fill(spec.ascii ? 0x20 : 0x40, 0, 3200);
  out.fill(spec.ascii ? 0x20 : 0x40, 3600, start);
  for (let line = 0; line < 40; line++) out[line * 80] = spec.ascii ? 0x43 : 0xc3;
  view.setInt16(3216, spec.intervalUs, le);
  view.setInt16(3220, samples, le);
  view.setInt16(3224, format, le);
  view.setInt16(3254, 1, le);
  if (spec.revision === 2) view.setUint32(3296, 0x01020304, le);
  if (spec.revision > 0) {
    view.setUint16(3500, spec.revision << 8, le);
    view.setInt16(3502, 1, le);
    view.setInt16(3504, spec.extended, le);
  }
  const times = spec.scalar < 0 ? -spec.scalar : 1 / spec.scalar;
  ordered.forEach((bin, n) => {
    const at = start + n * traceBytes;
    const [i, j] = [Math.floor(bin / nj), bin % nj];
    view.setInt32(at, n + 1, le);
    view.setInt16(at + 70, spec.scalar, le);
    view.setInt16(at + 108, spec.delayMs, le);
    view.setInt16(at + 114, samples, le);
    view.setInt16(at + 116, spec.intervalUs, le);
    view.setInt32(at + spec.bytes.inline - 1, inlines[i], le);
    view.setInt32(at + spec.bytes.crossline - 1, crosslines[j], le);
    const x = spec.origin[0] + i * spec.perInline[0] + j * spec.perCrossline[0];
    const y = spec.origin[1] + i * spec.perInline[1] + j * spec.perCrossline[1];
    view.setInt32(at + spec.bytes.x - 1, Math.round(x * times), le);
    view.setInt32(at + spec.bytes.y - 1, Math.round(y * times), le);
    for (let k = 0; k < samples; k++) {
      const v = exactValue(format, i, j, k);
      const o = at + 240 + k * BYTES[format];
      if (format === 1) view.setUint32(o, ibm(v), le);
      else if (format === 2) view.setInt32(o, v, le);
      else if (format === 3) view.setInt16(o, v, le);
      else if (format === 5) view.setFloat32(o, v, le);
      else if (format === 6) view.setFloat64(o, v, le);
      else if (format === 8) view.setInt8(o, v);
      else if (format === 10) view.setUint32(o, v, le);
      else if (format === 11) view.setUint16(o, v, le);
      else view.setUint8(o, v);
    }
  });
  return out;
}
//# sourceMappingURL=segyWriter.js.map
