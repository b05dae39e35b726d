// A small disk that fills at any moment of the work, and one that can only be read: a sentence, and the project as it was.
import { execFileSync } from 'node:child_process';
import { cpSync, existsSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { base, call, complaints, files, folder, loadOf, note, parcel, stateOf, work } from './support.mjs';

const FREE = [0, 2e3, 100e3, 600e3, 2e6, 8e6, 25e6];

export async function disk() {
  const dir = folder('disk');
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=64m', 'tmpfs', dir], { stdio: 'ignore' });
  } catch {
    note('a disk of its own', ['none could be mounted: run this as root']);
    return;
  }
  try {
    const project = join(dir, 'project');
    const filler = join(dir, 'filler');
    const free = () => {
      const { bavail, bsize } = statfsSync(dir);
      return bavail * bsize;
    };
    const jobs = {
      'load a table': ['load', join(files, 'checkshots.csv'), '--project', project],
      'load a volume': loadOf('quillon-near.sgy', project, 'Near'),
      'run a step': ['do', 'data.flip', '--project', project, '--in', 'seismic=Full', '--name', 'Flipped'],
      rebuild: ['rebuild', '--project', project],
      export: ['export', 'Full', join(dir, 'out.sgy'), '--project', project],
      pack: ['export', '.', join(dir, 'out.parcel'), '--project', project],
      unpack: ['load', parcel, '--project', join(dir, 'unpacked')],
    };
    for (const [name, args] of Object.entries(jobs))
      for (const left of FREE) {
        for (const old of [project, filler, join(dir, 'unpacked'), join(dir, 'out.sgy'), join(dir, 'out.parcel')])
          rmSync(old, { recursive: true, force: true });
        cpSync(base, project, { recursive: true });
        const before = await stateOf(project);
        writeFileSync(filler, Buffer.alloc(Math.max(0, free() - left)));
        const room = free();
        const { code, err } = await call(args).ended;
        const problems = await complaints(project, before, ['Balanced', 'Variance']);
        if (code !== 0 && !/no space left/.test(err)) problems.push(`it ended with ${code}: ${err}`);
        if (code !== 0 && /not foreseen|Nothing was changed/.test(err)) problems.push(`it says: ${err}`);
        if (code === 1 && name !== 'rebuild' && free() < room - 300e3)
          problems.push(`${room - free()} bytes are left behind`);
        if (code !== 0 && existsSync(join(dir, 'unpacked')))
          problems.push('a folder is left of a project that was not opened');
        if (code !== 0 && (existsSync(join(dir, 'out.sgy')) || existsSync(join(dir, 'out.parcel'))))
          problems.push('half a file is left');
        note(`${name} with ${left} bytes free`, problems);
      }
    rmSync(filler, { force: true });
    rmSync(project, { recursive: true, force: true });
    cpSync(base, project, { recursive: true });
    const before = await stateOf(project);
    execFileSync('mount', ['-o', 'remount,ro', dir]);
    for (const [name, args] of Object.entries(jobs)) {
      const { code, err } = await call(args).ended;
      const problems = await complaints(project, before);
      if (code !== 1 || !/can only be read/.test(err)) problems.push(`it ended with ${code}: ${err}`);
      note(`${name} on a disk that can only be read`, problems);
    }
    const out = join(work, 'elsewhere.sgy');
    const exported = await call(['export', 'Full', out, '--project', project]).ended;
    note('a project that can only be read is exported elsewhere', [
      ...(exported.code === 0 && existsSync(out) ? [] : [`it ended with ${exported.code}: ${exported.err}`]),
      ...(/ledger does not say so/.test(exported.err) ? [] : ['it does not say that the ledger could not be written']),
    ]);
    const listed = await call(['list', '--project', project]).ended;
    note('a project that can only be read is listed', listed.code === 0 ? [] : [listed.err]);
  } finally {
    execFileSync('umount', ['-l', dir]);
  }
}
