import { LithagonError } from '@lithagon/core/kept';
import { formatBytes } from '../ui/format';

/** What the browser has given to this site, and how much of it is taken. */
export interface Room {
  used: number;
  quota: number;
  persisted: boolean;
}

export async function roomLeft(): Promise<Room | null> {
  if (!navigator.storage?.estimate) return null;
  const [{ usage = 0, quota = 0 }, persisted] = await Promise.all([
    navigator.storage.estimate(),
    navigator.storage.persisted(),
  ]);
  return { used: usage, quota, persisted };
}

/** Refuse work whose results would not fit, before it begins. */
export async function checkRoom(what: string, bytes: number): Promise<void> {
  const room = await roomLeft();
  if (!room || room.used + bytes <= room.quota) return;
  throw new LithagonError(
    'space',
    `${what} would take ${formatBytes(bytes)}, and the browser has ${formatBytes(Math.max(0, room.quota - room.used))} left for this site.`,
    { fix: 'Delete objects or projects that you no longer need, or free space on the disk. Nothing was begun.' },
  );
}
