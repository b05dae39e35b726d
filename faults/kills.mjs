// Processes that are killed at any moment of a load, a run, a recipe, a rebuild, a parcel: what was there before stays,
// nothing half made is listed, and the next call clears away what is left.
import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import {
  call,
  complaints,
  copyOf,
  files,
  leftovers,
  loadOf,
  note,
  parcel,
  pause,
  random,
  recipe,
  stateOf,
  work,
} from './support.mjs';

const REBUILT = ['Balanced', 'Variance'];

/** What is killed: how it is called on a project, and what it may change. */
const VICTIMS = {
  load: { args: (dir) => loadOf('quillon-near.sgy', dir, 'Near') },
  'a step': {
    args: (dir) => ['do', 'attributes.variance', '--project', dir, '--in', 'seismic=Full', '--name', 'More'],
  },
  'a recipe': { args: (dir) => ['run', recipe, '--project', dir, '--files', files] },
  rebuilding: { args: (dir) => ['rebuild', '--project', dir], replaced: REBUILT },
  packing: { args: (dir, n) => ['export', '.', join(work, `packed-${n}.parcel`), '--project', dir] },
};

async function killOnce(name, n, part, tookMs, before) {
  const { args, replaced } = VICTIMS[name];
  const dir = copyOf(`kill-${n % 2}`);
  const { child, ended } = call(args(dir, n));
  await pause(part * tookMs);
  child.kill('SIGKILL');
  const { signal } = await ended;
  const problems = await complaints(dir, before, replaced);
  if (n % 5 === 0) problems.push(...(await leftovers(dir)), ...(await complaints(dir, before, replaced)));
  const packed = join(work, `packed-${n}.parcel`);
  if (signal && existsSync(packed)) {
    const again = await call(['load', packed, '--project', join(work, `unpacked-${n}`)]).ended;
    if (again.code !== 0) problems.push(`a parcel is there that does not open: ${again.err}`);
    rmSync(join(work, `unpacked-${n}`), { recursive: true, force: true });
  }
  rmSync(packed, { force: true });
  note(`kill ${n} of ${name} after ${(part * tookMs).toFixed(0)} ms`, problems);
  return signal !== null;
}

/** Unpacking makes a project: killed, it leaves one that can be filled by the next try. */
async function killUnpacking(n, part, tookMs) {
  const dir = join(work, `unpack-${n % 2}`);
  rmSync(dir, { recursive: true, force: true });
  const { child, ended } = call(['load', parcel, '--project', dir]);
  await pause(part * tookMs);
  child.kill('SIGKILL');
  const { signal } = await ended;
  const problems = [];
  const whole = await stateOf(dir).catch(() => null);
  if (whole && whole.objects.length > 0) problems.push(...whole.damaged);
  else {
    const again = await call(['load', parcel, '--project', dir]).ended;
    if (again.code !== 0) problems.push(`cannot be tried again: ${again.err}`);
    else problems.push(...(await stateOf(dir)).damaged);
  }
  note(`kill ${n} of unpacking after ${(part * tookMs).toFixed(0)} ms`, problems);
  return signal !== null;
}

export async function kills(count) {
  const next = random(7);
  const before = await stateOf(copyOf('untouched'));
  const names = [...Object.keys(VICTIMS), 'unpacking'];
  const took = {};
  for (const name of names) {
    const started = Date.now();
    if (name === 'unpacking') await call(['load', parcel, '--project', join(work, 'timed')]).ended;
    else await call(VICTIMS[name].args(copyOf('timed-copy'), 'timed')).ended;
    took[name] = Date.now() - started;
  }
  const jobs = Array.from({ length: count }, (_, n) => ({ n, name: names[n % names.length], part: next() }));
  let interrupted = 0;
  // two at a time, on copies of their own
  const lane = async (odd) => {
    for (const { n, name, part } of jobs.filter((j) => j.n % 2 === odd)) {
      const killed =
        name === 'unpacking'
          ? await killUnpacking(n, part, took[name])
          : await killOnce(name, n, part, took[name], before);
      if (killed) interrupted++;
    }
  };
  await Promise.all([lane(0), lane(1)]);
  console.log(`${count} kills, ${interrupted} of them in mid-work`);
  note('most kills fall into work', interrupted > 0.5 * count ? [] : [`only ${interrupted} of ${count} did`]);
}
