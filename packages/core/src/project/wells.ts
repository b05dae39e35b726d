import type { EarthObject, Kind, ObjectOf, Well, WellTable } from '../earth/objects.ts';
import { type WellPath, wellPath } from '../wells/path.ts';
import { pathOfLine } from './lines.ts';

/** What names a well or line whose position is not there yet: it waits for it, whatever order files came in. */
export function waitingFor(objects: EarthObject[]): Map<string, string> {
  const wells = new Set(objects.filter((o) => o.kind === 'well').map((o) => o.name));
  const out = new Map<string, string>();
  for (const object of objects)
    if ('well' in object && object.well !== '' && !wells.has(object.well))
      out.set(object.id, `the head of well ${object.well}`);
    else if (object.kind === 'seismic line' && !pathOfLine(objects, object))
      out.set(object.id, `navigation of line ${object.name}`);
  return out;
}

/** The table of a kind that belongs to a well, or undefined. */
export function tableOf(objects: EarthObject[], well: string, kind: WellTable['kind']): WellTable | undefined {
  return objects.find((o): o is WellTable => o.kind === kind && 'well' in o && o.well === well);
}

export function logsOf(objects: EarthObject[], well: string): ObjectOf<'logs'> | undefined {
  return objects.find((o): o is ObjectOf<'logs'> => o.kind === 'logs' && o.well === well);
}

/** What of a kind belongs to a well; of time–depth relations only the one that was accepted last. */
export function companionsOf(objects: EarthObject[], well: string, kind: Kind): EarthObject[] {
  const found = objects.filter((o) => o.kind === kind && 'well' in o && o.well === well);
  return kind === 'time-depth relation'
    ? found.sort((a, b) => (a.madeBy.started < b.madeBy.started ? 1 : -1)).slice(0, 1)
    : found;
}

/** Path of a well from its head and, where there is one, its directional survey; vertical otherwise. */
export function pathOf(objects: EarthObject[], well: Well): WellPath {
  const survey = tableOf(objects, well.name, 'directional surveys');
  const stations = (survey?.rows ?? []).map(
    (r) => [Number(r[0]), Number(r[1]), Number(r[2])] as [number, number, number],
  );
  return wellPath(well.x, well.y, well.kbM, stations, well.totalMdM);
}
