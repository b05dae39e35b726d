import {
  asLithagonError,
  checkOrder,
  type EarthObject,
  followTop,
  newTable,
  paintFacies,
  putTop,
  removeTop,
  renameTop,
  stratigraphyOf,
  type Top,
  type TopEdit,
  type WellTable,
  withUnits,
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

/** A top under another name in all wells; wells that have it under either name agree then. A name taken is refused. */
export const renameTops = (from: string, to: string): Promise<void> =>
  inTurn(async () => {
    const name = to.trim().slice(0, 200);
    if (name === '' || name === from) return;
    let edits: TopEdit[];
    try {
      edits = renameTop(objectsNow(), from, name);
    } catch (cause) {
      const { message, fix } = asLithagonError(cause);
      toast.error(message, { description: fix });
      return;
    }
    const before = edits.flatMap((e) => (e.before ? [e.before] : []));
    const column = stratigraphyOf(objectsNow());
    // the order of the rocks follows the name, and holds it once
    const known = column?.units.some((u) => u.top === name);
    const units = column?.units.flatMap((u) => (u.top !== from ? [u] : known ? [] : [{ ...u, top: name }])) ?? [];
    const ordered = column ? [[column], [withUnits(column, units)]] : [[], []];
    const { byId } = useProject.getState();
    // horizons that are it, and steps that name it; what is put anyhow has its own turn
    const own = new Set([...edits.map((e) => e.after.id), ...ordered[1].map((o) => o.id)]);
    const follow = followTop(objectsNow(), from, name).filter((o) => !own.has(o.id));
    await edit(
      `Rename ${from} to ${name}`,
      [...before, ...ordered[0], ...follow.map((o) => byId.get(o.id) as EarthObject)],
      [...edits.map((e) => e.after), ...ordered[1], ...follow],
    );
  });

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
