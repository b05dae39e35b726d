// Normals of reflections from gradients: products of these, smoothed elsewhere, and the greatest eigenvector of each tensor
// (van Vliet & Verbeek 1995, Proc. ASCI'95, 442–449). Memory is laid out by the caller; offsets are in bytes.

/** The six products of three gradients, each row after the other in `out`: xx, xy, xz, yy, yz, zz. What is no number is nought. */
export function products(x: usize, y: usize, z: usize, out: usize, length: i32): void {
  const row = (length as usize) << 2;
  for (let n: i32 = 0; n < length; n += 4) {
    const o = (n as usize) << 2;
    let a = v128.load(x + o);
    let b = v128.load(y + o);
    let c = v128.load(z + o);
    a = v128.and(a, f32x4.eq(a, a));
    b = v128.and(b, f32x4.eq(b, b));
    c = v128.and(c, f32x4.eq(c, c));
    const at = out + o;
    v128.store(at, f32x4.mul(a, a));
    v128.store(at + row, f32x4.mul(a, b));
    v128.store(at + 2 * row, f32x4.mul(a, c));
    v128.store(at + 3 * row, f32x4.mul(b, b));
    v128.store(at + 4 * row, f32x4.mul(b, c));
    v128.store(at + 5 * row, f32x4.mul(c, c));
  }
}

/** Squarings of a tensor: its greatest eigenvector is what is left of it after 2⁶ products. */
const SQUARINGS: i32 = 6;

/**
 * Slopes and disorder from smoothed tensors, rows as `products` leaves them, `length` a multiple of four: `p` and `q` get what
 * a reflection drops along x and y for each step there, `chaos` 2λ₂ / (λ₁ + λ₃) (nought for a plane, one for disorder).
 */
export function normals(tensors: usize, p: usize, q: usize, chaos: usize, length: i32, row: i32): void {
  const r = (row as usize) << 2;
  const tiny = f32x4.splat(1e-30);
  const one = f32x4.splat(1);
  for (let n: i32 = 0; n < length; n += 4) {
    const o = (n as usize) << 2;
    const at = tensors + o;
    let xx = v128.load(at);
    let xy = v128.load(at + r);
    let xz = v128.load(at + 2 * r);
    let yy = v128.load(at + 3 * r);
    let yz = v128.load(at + 4 * r);
    let zz = v128.load(at + 5 * r);
    const trace = f32x4.add(f32x4.add(xx, yy), zz);
    const inverse = f32x4.div(one, f32x4.max(trace, tiny));
    // of unit trace
    xx = f32x4.mul(xx, inverse);
    xy = f32x4.mul(xy, inverse);
    xz = f32x4.mul(xz, inverse);
    yy = f32x4.mul(yy, inverse);
    yz = f32x4.mul(yz, inverse);
    zz = f32x4.mul(zz, inverse);
    const txx = xx;
    const txy = xy;
    const txz = xz;
    const tyy = yy;
    const tyz = yz;
    const tzz = zz;
    for (let s: i32 = 0; s < SQUARINGS; s++) {
      const axx = f32x4.add(f32x4.add(f32x4.mul(xx, xx), f32x4.mul(xy, xy)), f32x4.mul(xz, xz));
      const axy = f32x4.add(f32x4.add(f32x4.mul(xx, xy), f32x4.mul(xy, yy)), f32x4.mul(xz, yz));
      const axz = f32x4.add(f32x4.add(f32x4.mul(xx, xz), f32x4.mul(xy, yz)), f32x4.mul(xz, zz));
      const ayy = f32x4.add(f32x4.add(f32x4.mul(xy, xy), f32x4.mul(yy, yy)), f32x4.mul(yz, yz));
      const ayz = f32x4.add(f32x4.add(f32x4.mul(xy, xz), f32x4.mul(yy, yz)), f32x4.mul(yz, zz));
      const azz = f32x4.add(f32x4.add(f32x4.mul(xz, xz), f32x4.mul(yz, yz)), f32x4.mul(zz, zz));
      const unit = f32x4.div(one, f32x4.max(f32x4.add(f32x4.add(axx, ayy), azz), tiny));
      xx = f32x4.mul(axx, unit);
      xy = f32x4.mul(axy, unit);
      xz = f32x4.mul(axz, unit);
      yy = f32x4.mul(ayy, unit);
      yz = f32x4.mul(ayz, unit);
      zz = f32x4.mul(azz, unit);
    }
    // the longest column of what is left, scaled to the vertical part: reflections are not vertical, so that it is zz's column
    const down = f32x4.max(zz, f32x4.splat(1e-6));
    const flat = f32x4.gt(trace, tiny);
    v128.store(p + o, v128.and(f32x4.neg(f32x4.div(xz, down)), flat));
    v128.store(q + o, v128.and(f32x4.neg(f32x4.div(yz, down)), flat));
    // λ₁ = nᵀ T n for the unit normal, the others from trace and determinant
    const norm = f32x4.add(f32x4.add(f32x4.mul(xz, xz), f32x4.mul(yz, yz)), f32x4.mul(zz, zz));
    const tx = f32x4.add(f32x4.add(f32x4.mul(txx, xz), f32x4.mul(txy, yz)), f32x4.mul(txz, zz));
    const ty = f32x4.add(f32x4.add(f32x4.mul(txy, xz), f32x4.mul(tyy, yz)), f32x4.mul(tyz, zz));
    const tz = f32x4.add(f32x4.add(f32x4.mul(txz, xz), f32x4.mul(tyz, yz)), f32x4.mul(tzz, zz));
    const first = f32x4.div(
      f32x4.add(f32x4.add(f32x4.mul(tx, xz), f32x4.mul(ty, yz)), f32x4.mul(tz, zz)),
      f32x4.max(norm, tiny),
    );
    const det = f32x4.add(
      f32x4.sub(
        f32x4.mul(txx, f32x4.sub(f32x4.mul(tyy, tzz), f32x4.mul(tyz, tyz))),
        f32x4.mul(txy, f32x4.sub(f32x4.mul(txy, tzz), f32x4.mul(tyz, txz))),
      ),
      f32x4.mul(txz, f32x4.sub(f32x4.mul(txy, tyz), f32x4.mul(tyy, txz))),
    );
    const rest = f32x4.max(f32x4.sub(one, first), f32x4.splat(0));
    const both = f32x4.max(f32x4.div(det, f32x4.max(first, tiny)), f32x4.splat(0));
    const root = f32x4.sqrt(f32x4.max(f32x4.sub(f32x4.mul(rest, rest), f32x4.mul(both, f32x4.splat(4))), f32x4.splat(0)));
    const second = f32x4.mul(f32x4.add(rest, root), f32x4.splat(0.5));
    const third = f32x4.mul(f32x4.sub(rest, root), f32x4.splat(0.5));
    const disorder = f32x4.div(f32x4.mul(second, f32x4.splat(2)), f32x4.max(f32x4.add(first, third), tiny));
    v128.store(chaos + o, v128.and(f32x4.min(disorder, one), flat));
  }
}
