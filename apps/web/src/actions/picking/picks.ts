import { drawn, freeName, newDrawn, type Picks } from '@lithagon/core';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { type PickHow, type PickTool, takeTool, useTool } from '../../state/tool';
import { counted } from '../../ui/format';

/** The picks that a tool works on; none before the first. */
export const picksOf = (tool: PickTool) =>
  (tool.id ? useProject.getState().byId.get(tool.id) : undefined) as Picks | undefined;

/** Begin picking: a new horizon, or more of one that was picked before. */
export function beginPicking(picks?: Picks): void {
  const { objects } = useProject.getState();
  const free = picks?.event === 'free-hand';
  takeTool({
    kind: 'pick',
    id: picks?.id ?? null,
    name: picks?.name ?? freeName(objects, 'picks', 'Picked horizon'),
    how: free ? 'free-hand' : 'snapped',
    event: picks && picks.event !== 'free-hand' ? picks.event : 'trough',
    snapMs: 16,
    last: null,
    rub: null,
    brush: 14,
  });
}

/** The tool as it is now: the stroke before may have made the object that it works on. */
export function asNow(tool: PickTool): PickTool {
  const { tool: now } = useTool.getState();
  return now?.kind === 'pick' && now.name === tool.name ? now : tool;
}

const eventOf = (tool: PickTool): Picks['event'] => (tool.how === 'free-hand' ? 'free-hand' : tool.event);

/** Put picks at places, map coordinates and TWT; those that stood within `near` metres of one give way. */
export async function putPicks(tool: PickTool, added: Picks['points'], near: number, name: (picks: string) => string) {
  const before = picksOf(tool);
  const kept = (before?.points ?? []).filter((p) => !added.some((a) => Math.hypot(p[0] - a[0], p[1] - a[1]) <= near));
  const points: Picks['points'] = [...kept, ...added];
  const event = eventOf(tool);
  const after = before
    ? drawn<Picks>({ ...before, points })
    : newDrawn<Picks>({ kind: 'picks', name: tool.name, domain: 'twt', event, points, erased: [] });
  takeTool({ ...tool, id: after.id, last: added[added.length - 1] ?? tool.last });
  await edit(name(after.name), before ? [before] : [], [after]);
}

/** End the stretch under way: what is followed begins anew with the next pick. */
export function endStretch(): void {
  const { tool } = useTool.getState();
  if (tool?.kind === 'pick') takeTool({ ...tool, last: null });
}

/** Take picks away. */
export async function takeAway(picking: PickTool, gone: (p: Picks['points'][number]) => boolean): Promise<void> {
  const before = picksOf(asNow(picking));
  if (!before) return;
  const points = before.points.filter((p) => !gone(p));
  const count = before.points.length - points.length;
  if (count === 0) return;
  const what = count === 1 ? 'a pick' : counted(count, 'pick');
  await edit(`Take ${what} off ${before.name}`, [before], [drawn<Picks>({ ...before, points })]);
}

/** Change how picks are made; what was picked stays where it is. */
export async function changePicking(
  tool: PickTool,
  change: { how?: PickHow; event?: PickTool['event'] },
): Promise<void> {
  const next = { ...tool, ...change, rub: null };
  takeTool(next);
  const before = picksOf(tool);
  const event = eventOf(next);
  if (!before || before.event === event) return;
  const name = event === 'free-hand' ? `${before.name} is drawn free-hand` : `${before.name} follows ${article(event)}`;
  await edit(name, [before], [drawn<Picks>({ ...before, event })]);
}

const article = (event: string) => (/^[aeiou]/.test(event) ? `an ${event}` : `a ${event}`);
