/** What a thread of Node does as a lane: it knows every step, and opens folders. */
import { parentPort } from 'node:worker_threads';
import { plain } from '../earth/errors.ts';
import { localOf } from '../steps/index.ts';
import { laneStore } from '../storage/folder.ts';
import { type LaneMessage, laneOf } from './runner.ts';

const answer = laneOf((door) => laneStore(door as string), localOf);

parentPort?.on('message', async ({ id, message }: { id: number; message: LaneMessage }) => {
  try {
    parentPort?.postMessage({ id, found: await answer(message) });
  } catch (cause) {
    parentPort?.postMessage({ id, error: plain(cause) });
  }
});
