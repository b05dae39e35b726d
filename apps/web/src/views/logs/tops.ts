import {
  asLithagonError,
  checkOrder,
  newTable,
  paintFacies,
  putTop,
  removeTop,
  renameTop,
  type Top,
  type TopEdit,
  type WellTable,
} from '@lithagon/core';
import { toast } from 'sonner';
import { edit, inTurn } from '../../state/history';
import { useProject } from '../../state/project';

const objectsNow = () => useProject.getState().objects;

async function keep(name: string, edits: TopEdit[]): Promise<void> {
  await edit(
    name,
    edits.flatMap((e) => (e.before ? [e.before] : [])),
    edits.map((e) => e.after),
  );
}

/** Put or change a top; a crossing is refused in a sentence. @returns whether it was done */
export const setTop = (well: string, top: Top, was?: Top): Promise<boolean> =>
  inTurn(async () => {
    try {
      if (top.kind === 'top') checkOrder(objectsNow(), well, top.name, top.md);
    } catch (cause) {
      const { message, fix } = asLithagonError(cause);
      toast.error(message, { description: fix });
      return false;
    }
    await keep(was ? `Move ${top.name} in ${well}` : `Pick ${top.name} in ${well}`, [
      putTop(objectsNow(), well, top, was),
    ]);
    return true;
  });

/** Put several tops, carried from other wells, as one edit. */
export async function acceptTops(name: string, tops: { well: string; top: Top }[]): Promise<number> {
  const edits = new Map<string, TopEdit>();
  let objects = objectsNow();
  let done = 0;
  for (const { well, top } of tops) {
    try {
      checkOrder(objects, well, top.name, top.md);
    } catch (cause) {
      toast.error(asLithagonError(cause).message);
      continue;
    }
    const one = putTop(objects, well, top);
    // the table as it was before the first of them, which may be none
    const { before } = edits.get(one.after.id) ?? one;
    edits.set(one.after.id, { before, after: one.after });
    objects = [...objects.filter((o) => o.id !== one.after.id), one.after];
    done++;
  }
  if (edits.size > 0) await keep(name, [...edits.values()]);
  return done;
}

export const deleteTop = (well: string, top: Top) =>
  inTurn(() => keep(`Delete ${top.name} in ${well}`, [removeTop(objectsNow(), well, top)]));

export async function renameTops(from: string, to: string): Promise<void> {
  const name = to.trim().slice(0, 200);
  if (name === '' || name === from) return;
  const column = objectsNow().find((o) => o.kind === 'stratigraphic column');
  const edits = renameTop(objectsNow(), from, name);
  const before = edits.flatMap((e) => (e.before ? [e.before] : []));
  const after = edits.map((e) => e.after);
  // the order of the rocks follows the name
  if (column?.kind === 'stratigraphic column' && column.units.some((u) => u.top === from))
    await edit(
      `Rename ${from} to ${name}`,
      [...before, column],
      [...after, { ...column, units: column.units.map((u) => (u.top === from ? { ...u, top: name } : u)) }],
    );
  else await edit(`Rename ${from} to ${name}`, before, after);
}

/** Paint an interval of a well; a described or painted table takes it, never a predicted one. */
export const paint = (well: string, from: number, to: number, facies: string | null): Promise<void> =>
  inTurn(async () => {
    const own = objectsNow().find(
      (o): o is WellTable => o.kind === 'facies' && o.well === well && o.madeBy.step !== 'wells.facies',
    );
    const before = own ?? newTable('facies', well);
    const after = paintFacies(before, from, to, facies);
    await edit(`Paint ${facies ?? 'nothing'} in ${well}`, own ? [own] : [], [after]);
  });
