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

export const slowest = (values) => values.reduce((a, b) => Math.max(a, b), 0);
export const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];

/** Open a new project in the application. */
export async function newProject(page, port) {
  await page.goto(`http://127.0.0.1:${port}/`);
  await page.getByRole('button', { name: /^New project/ }).click();
  await page.getByText('A section shows seismic along a line.').waitFor();
}
