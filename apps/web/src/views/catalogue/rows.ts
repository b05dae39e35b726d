import { asideOf, bytesOf, type EarthObject, kindOf, stepOf } from '@lithagon/core';

export type Column = 'name' | 'kind' | 'about' | 'from' | 'tags' | 'size' | 'when';
export type Group = 'none' | 'stage' | 'kind' | 'well' | 'tag';

/** What an object shows in each column, and is sorted by. */
export type Cells = Record<Exclude<Column, 'size'>, string> & { size: number };

/** A row of the list: an object, or the heading of a group. */
export interface Row {
  key: string;
  title: string;
  object: EarthObject | null;
  /** Objects in the group that this heads. */
  count: number;
}

const wellOf = (o: EarthObject) => (o.kind === 'well' ? o.name : 'well' in o ? o.well : '');

/** Cells of all objects by id: what takes time is counted once, not for each letter typed. */
export function cellsOf(objects: EarthObject[]): Map<string, Cells> {
  return new Map(
    objects.map((o) => [
      o.id,
      {
        name: o.name,
        kind: o.kind,
        about: 'well' in o && o.well ? o.well : asideOf(o),
        from: o.madeBy.file ?? stepOf(o.madeBy.step)?.title ?? 'drawn by hand',
        tags: (o.tags ?? []).join(', '),
        size: bytesOf(o),
        when: o.madeBy.started,
      },
    ]),
  );
}

function groupOf(o: EarthObject, by: Group): string {
  if (by === 'stage') return o.stage.replace(/^./, (c) => c.toUpperCase());
  if (by === 'kind') return kindOf(o).plural;
  if (by === 'well') return wellOf(o) || 'Of no well';
  return o.tags?.[0] ?? 'Without a tag';
}

/** Rows of a list of objects, under headings where they are grouped, groups in the order of their first members. */
export function rowsOf(objects: EarthObject[], group: Group): Row[] {
  const row = (object: EarthObject): Row => ({ key: object.id, title: '', object, count: 0 });
  if (group === 'none') return objects.map(row);
  const groups = new Map<string, Row[]>();
  for (const object of objects) {
    const title = groupOf(object, group);
    const members = groups.get(title);
    if (members) members.push(row(object));
    else groups.set(title, [row(object)]);
  }
  return [...groups].flatMap(([title, members]) => [
    { key: `group ${title}`, title, object: null, count: members.length },
    ...members,
  ]);
}
