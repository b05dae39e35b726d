import { closeSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { mkdir, readFile, rmdir, stat, unlink, utimes } from 'node:fs/promises';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { LithagonError } from '../earth/errors.ts';

/** Who holds a project, as the lock file says it. */
interface Holder {
  pid: number;
  host: string;
  /** When its process began, in ticks, where the system tells: a number may be given to another process. */
  began: string | null;
  what: string;
  since: string;
  token: string;
}

/** How often a holder says that it is alive, and after what silence one on another machine counts as gone. */
const BEAT = 15_000;
const SILENCE = 90_000;
/** How long the removal of a stale lock may take before another may remove it. */
const REMOVAL = 10_000;

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

function began(pid: number): string | null {
  try {
    // the name, in parentheses, may hold anything
    return readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1)?.split(' ')[19] ?? null;
  } catch {
    return null;
  }
}

async function readHolder(path: string): Promise<Holder | null> {
  try {
    return JSON.parse(await readFile(path, 'utf8')) as Holder;
  } catch {
    return null;
  }
}

/** Whether whoever holds a lock is gone: its process is not there, or has been silent for long where it cannot be seen. */
async function isStale(path: string, holder: Holder | null): Promise<boolean> {
  const facts = await stat(path).catch(() => null);
  if (!facts) return false;
  const silent = Date.now() - facts.mtimeMs;
  // being written just now, or cut short by a full disk
  if (!holder) return silent > REMOVAL;
  if (holder.host !== hostname()) return silent > SILENCE;
  try {
    process.kill(holder.pid, 0);
  } catch (cause) {
    return (cause as NodeJS.ErrnoException).code === 'ESRCH';
  }
  return holder.began !== null && began(holder.pid) !== holder.began;
}

/** Remove a lock whose holder is gone; of several who try, one does. */
async function removeStale(path: string, token: string | undefined): Promise<void> {
  const guard = `${path}.removing`;
  try {
    await mkdir(guard);
  } catch {
    const facts = await stat(guard).catch(() => null);
    if (facts && Date.now() - facts.mtimeMs > REMOVAL) await rmdir(guard).catch(() => undefined);
    return;
  }
  try {
    const now = await readHolder(path);
    // another may have taken it between the look and the guard
    if (now?.token === token && (await isStale(path, now))) await unlink(path).catch(() => undefined);
  } finally {
    await rmdir(guard).catch(() => undefined);
  }
}

/** Locks that this process holds, by path: its own stores share one. */
const held = new Map<string, { token: string; users: number; beat: NodeJS.Timeout }>();

process.on('exit', () => {
  for (const path of held.keys()) rmSync(path, { force: true });
});

/** A project held for writing. */
export interface Hold {
  /** Whether this process has only now come to hold it. */
  fresh: boolean;
  /** Refuse to go on where the lock has been taken away. */
  check(): void;
  release(): void;
}

/** Write the lock file in one go where there is none. */
function take(path: string, holder: Holder): boolean {
  let file: number;
  try {
    file = openSync(path, 'wx');
  } catch (cause) {
    if ((cause as NodeJS.ErrnoException).code === 'EEXIST') return false;
    throw cause;
  }
  try {
    writeSync(file, JSON.stringify(holder));
  } catch (cause) {
    // a full disk: a lock that names nobody would hold others up
    rmSync(path, { force: true });
    throw cause;
  } finally {
    closeSync(file);
  }
  return true;
}

function heldBy(path: string): Hold {
  const own = held.get(path) as NonNullable<ReturnType<typeof held.get>>;
  own.users++;
  let released = false;
  const { token } = own;
  return {
    fresh: own.users === 1,
    check() {
      let now: string | undefined;
      try {
        now = (JSON.parse(readFileSync(path, 'utf8')) as Holder).token;
      } catch {
        // gone or unreadable: not ours
      }
      if (now !== token)
        throw new LithagonError('held', 'The project was taken over by another process.', {
          fix: 'Nothing of this change was kept. Run it again.',
        });
    },
    release() {
      if (released) return;
      released = true;
      if (--own.users > 0) return;
      clearInterval(own.beat);
      held.delete(path);
      rmSync(path, { force: true });
    },
  };
}

/**
 * Hold a project folder for writing: one process at a time may. A lock whose process is gone counts for nothing.
 * @param what the holder, as others are told of it
 * @param waitMs how long to wait for another to let go
 */
export async function holdFolder(dir: string, what: string, waitMs = 5000): Promise<Hold> {
  const path = join(dir, 'project.lock');
  if (held.has(path)) return heldBy(path);
  const token = crypto.randomUUID();
  const holder = { pid: process.pid, host: hostname(), began: began(process.pid), what, token };
  const until = Date.now() + waitMs;
  for (;;) {
    if (take(path, { ...holder, since: new Date().toISOString() })) {
      const beat = setInterval(() => {
        const now = new Date();
        void utimes(path, now, now).catch(() => undefined);
      }, BEAT);
      beat.unref();
      held.set(path, { token, users: 0, beat });
      return heldBy(path);
    }
    if (held.has(path)) return heldBy(path);
    const other = await readHolder(path);
    if (await isStale(path, other)) await removeStale(path, other?.token);
    else if (Date.now() >= until)
      throw new LithagonError(
        'held',
        `The project in ${dir} is being changed by ${other ? `${other.what} (process ${other.pid} on ${other.host}, since ${other.since})` : 'another process'}.`,
        { object: dir, fix: 'Nothing was changed. Wait until it has finished, and try again.' },
      );
    await pause(50);
  }
}
