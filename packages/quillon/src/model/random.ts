/** Seeded random numbers (xoshiro128**), so that a seed gives the same earth to the byte. */
export interface Random {
  /** Uniform in [0, 1). */
  (): number;
  /** Uniform in [lo, hi). */
  between(lo: number, hi: number): number;
  /** Standard normal (Marsaglia's polar method). */
  normal(): number;
}

function splitMix(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x9e3779b9) >>> 0;
    let z = state;
    z = Math.imul(z ^ (z >>> 16), 0x21f0aaad);
    z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
    return (z ^ (z >>> 15)) >>> 0;
  };
}

/** A stream of its own for each `(seed, name)`, so that adding a stream changes no other. */
export function randomFor(seed: number, name: string): Random {
  let hash = 2166136261 ^ seed;
  for (const ch of name) hash = Math.imul(hash ^ ch.charCodeAt(0), 16777619);
  const mix = splitMix(hash ^ Math.imul(seed, 0x85ebca6b));
  let [a, b, c, d] = [mix(), mix(), mix(), mix()];
  let spare = Number.NaN;
  const next = (() => {
    const m = Math.imul(b, 5);
    const result = Math.imul((m << 7) | (m >>> 25), 9) >>> 0;
    const t = b << 9;
    c ^= a;
    d ^= b;
    b ^= c;
    a ^= d;
    c ^= t;
    d = (d << 11) | (d >>> 21);
    return result / 4294967296;
  }) as Random;
  next.between = (lo, hi) => lo + (hi - lo) * next();
  next.normal = () => {
    if (!Number.isNaN(spare)) {
      const kept = spare;
      spare = Number.NaN;
      return kept;
    }
    for (;;) {
      const x = 2 * next() - 1;
      const y = 2 * next() - 1;
      const s = x * x + y * y;
      if (s > 0 && s < 1) {
        const f = Math.sqrt((-2 * Math.log(s)) / s);
        spare = y * f;
        return x * f;
      }
    }
  };
  return next;
}
