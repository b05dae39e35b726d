/** Median seconds that `work` takes over `runs`, after one run that is not counted. */
export async function timed(work, runs = 5) {
  await work();
  const seconds = [];
  for (let n = 0; n < runs; n++) {
    const started = performance.now();
    await work();
    seconds.push((performance.now() - started) / 1000);
  }
  return seconds.sort((a, b) => a - b)[Math.floor(runs / 2)];
}

/** Even noise between −1 and 1. */
export function noise(seed = 1) {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 31 - 1;
  };
}
