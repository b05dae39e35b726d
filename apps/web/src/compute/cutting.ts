import { uncutPlanes, type Volume } from '@lithagon/core';
import * as Comlink from 'comlink';
import { mayChange, refreshProject, useProject } from '../state/project';
import { track, useRuns } from '../state/runs';
import { runJob } from './pool';

/** How long nothing else is at work before volumes are cut, ms: files of one load follow each other closely. */
const QUIET = 400;

/**
 * Cut volumes for the planes that they have no copy for, one after the other and while nothing else is at work: what a
 * load left to be done, in this tab or in one that was closed too early.
 */
export function keepCutting(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let busy = false;
  /** Those whose cutting was cancelled or failed: not taken up again before the project is opened anew. */
  const left = new Set<string>();
  const cut = async () => {
    const { id, objects, writer } = useProject.getState();
    const volume = objects.find(
      (o): o is Volume => o.kind === 'volume' && uncutPlanes(o).length > 0 && !left.has(o.id),
    );
    if (busy || !writer || !volume || useRuns.getState().runs.length > 0) return;
    busy = true;
    const done = await track(`Cutting ${volume.name} for crosslines and slices`, volume.stage, (signal, progress) => {
      mayChange();
      return runJob((remote, task) => remote.cut(task, id, volume.id, Comlink.proxy(progress)), signal);
    });
    // one that was deleted meanwhile may come back by undo
    if (done === null) left.add(volume.id);
    await refreshProject();
    busy = false;
    look();
  };
  const look = () => {
    clearTimeout(timer);
    timer = setTimeout(cut, QUIET);
  };
  const forget = [useProject.subscribe(look), useRuns.subscribe(look)];
  return () => {
    clearTimeout(timer);
    for (const each of forget) each();
  };
}
