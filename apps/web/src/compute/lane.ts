/** What a worker does as a lane of a run: it knows every step, and opens projects of this browser. */
import { type LaneMessage, laneOf, localOf, plain } from '@lithagon/core';
import { idbStore } from '../storage/idbStore';

const answer = laneOf((door) => {
  const { project, token } = door as { project: string; token: string | null };
  return idbStore(project, () => token);
}, localOf);

addEventListener('message', async ({ data }: MessageEvent<{ id: number; message: LaneMessage }>) => {
  try {
    postMessage({ id: data.id, found: await answer(data.message) });
  } catch (cause) {
    postMessage({ id: data.id, error: plain(cause) });
  }
});
