/** A seeded stream of numbers, even between 0 and 1, the ends left out (a linear congruence; for tests, nothing else). */
export function uniform(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return (state + 0.5) / 2 ** 32;
  };
}

/** The same, even between −1 and 1. */
export function even(seed: number): () => number {
  const next = uniform(seed);
  return () => 2 * next() - 1;
}

/** Normal numbers of unit spread, by Box and Muller. */
export function normal(seed: number): () => number {
  const next = uniform(seed);
  return () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
}

/** Normal numbers of seeds that follow each other, which have nothing to do with each other from the start. */
export function normalApart(seed: number): () => number {
  const next = normal(seed * 2654435761);
  for (let n = 0; n < 10; n++) next();
  return next;
}
