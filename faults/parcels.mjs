// Parcels made to do harm, opened by a process of their own whose memory is watched.
import { spawnSync } from 'node:child_process';
import { copyFileSync, existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { call, complaints, copyOf, folder, note, root, stateOf } from './support.mjs';

const MOST = 1.5e9;

export async function parcels() {
  const made = folder('made');
  // the parcels are those of the unit test, which writes them out
  const test = spawnSync('npx', ['vitest', 'run', 'packages/core/src/storage/hostile.test.ts'], {
    cwd: root,
    env: { ...process.env, HOSTILE_DIR: made },
  });
  note('the unit test of hostile parcels', test.status === 0 ? [] : [`it ended with ${test.status}`]);
  const count = readdirSync(made).filter((name) => name.endsWith('.json')).length;
  note('there are sixty of them', count >= 60 ? [] : [`there are ${count}`]);
  const beside = copyOf('beside');
  const before = await stateOf(beside);
  let worst = 0;
  const open = async (n) => {
    const parcel = JSON.parse(readFileSync(join(made, `${n}.json`), 'utf8'));
    const place = folder(`hostile-${n % 2}`);
    const file = join(place, 'a.parcel');
    copyFileSync(join(made, `${n}.parcel`), file);
    const target = join(place, 'deep/er/project');
    const { code, err, peak } = await call(['load', file, '--project', target]).ended;
    worst = Math.max(worst, peak);
    const problems = await complaints(beside, before);
    if (peak > MOST) problems.push(`it took ${(peak / 1e6).toFixed(0)} MB`);
    if (code === 0 && !parcel.mayOpen) problems.push('it opened');
    if (code !== 0 && (code !== 1 || !/cannot be opened as a parcel: .*\./.test(err)))
      problems.push(`it ended with ${code}: ${err.slice(0, 300)}`);
    if (code !== 0 && existsSync(target)) problems.push('a project is left');
    if (existsSync('/tmp/out')) problems.push('it wrote outside its project');
    const outside = readdirSync(place).filter((each) => !['a.parcel', 'deep'].includes(each));
    if (outside.length > 0) problems.push(`it wrote ${outside.join(', ')}`);
    if (code === 0) problems.push(...(await stateOf(target)).damaged);
    note(`parcel ${n}: ${parcel.name}`, problems);
    rmSync(place, { recursive: true, force: true });
  };
  // two at a time
  const lane = async (odd) => {
    for (let n = odd; n < count; n += 2) await open(n);
  };
  await Promise.all([lane(0), lane(1)]);
  console.log(`${count} hostile parcels, at most ${(worst / 1e6).toFixed(0)} MB of memory`);
}
