import type { Points } from '../earth/objects.ts';
import { freeName, loadedRevision, newId } from '../project/make.ts';
import { titleOfFile } from './loadHorizon.ts';
import type { Loading } from './loading.ts';

/** Points as one object, named after what was declared or else after the file. */
export function pointsOf(
  { source, declare, objects }: Loading,
  points: [number, number][],
  names: string[],
  madeBy: Points['madeBy'],
): Points {
  return {
    id: newId('points'),
    kind: 'points',
    name: freeName(objects, 'points', declare.name || titleOfFile(source.name)),
    stage: 'data',
    revision: loadedRevision(names.join(), points),
    points,
    names: names.map((name) => name.slice(0, 200)),
    madeBy,
  };
}
