import {
  askedInputs,
  drawn,
  type Fault,
  freeName,
  type Horizon,
  newDrawn,
  type Picks,
  type Polygon,
  snap,
  type Volume,
} from '@lithagon/core';
import { toast } from 'sonner';
import { edit, inTurn } from '../state/history';
import { useProject } from '../state/project';
import { select } from '../state/selection';
import { type Tool, takeTool, useTool } from '../state/tool';
import { placeOf, type SectionLine } from '../views/section/geometry';
import { rerun } from './steps';

const objectOf = (id: string | null) => (id ? useProject.getState().byId.get(id) : undefined);

/** Begin picking: a new horizon, or more of one that was picked before. */
export function beginPicking(picks?: Picks): void {
  const { objects } = useProject.getState();
  takeTool({
    kind: 'pick',
    id: picks?.id ?? null,
    name: picks?.name ?? freeName(objects, 'picks', 'Picked horizon'),
    event: picks?.event ?? 'trough',
    snapMs: 16,
  });
}

export function beginFault(fault?: Fault): void {
  const { objects } = useProject.getState();
  takeTool({
    kind: 'fault',
    id: fault?.id ?? null,
    name: fault?.name ?? freeName(objects, 'fault', 'Drawn fault'),
    stick: [],
  });
}

type PickTool = Extract<Tool, { kind: 'pick' }>;

/** A tool as it is now: the stroke before may have made the object that it works on. */
function asNow<T extends Tool & { name: string }>(tool: T): T {
  const { tool: now } = useTool.getState();
  return now?.kind === tool.kind && (now as T).name === tool.name ? (now as T) : tool;
}

/** Add a pick where a section was clicked, on the nearest event; a pick on the same trace moves. */
export const pickAt = (
  picking: PickTool,
  line: SectionLine,
  volume: Pick<Volume, 'vertical'>,
  data: Float32Array,
  trace: number,
  vertical: number,
): Promise<void> =>
  inTurn(async () => {
    const tool = asNow(picking);
    const t = Math.round(trace);
    if (t < 0 || t >= line.traces) return;
    const { first, step, count } = volume.vertical;
    const time = snap({ data, samples: count, first, step }, t, vertical, tool.event, tool.snapMs);
    if (Number.isNaN(time)) {
      toast(`No ${tool.event} lies within ${tool.snapMs} ms of there. Nothing was picked.`);
      return;
    }
    const [x, y] = placeOf(line, t);
    const near = Math.hypot(...placeOf(line, 1).map((v, c) => v - placeOf(line, 0)[c])) / 2;
    const before = objectOf(tool.id) as Picks | undefined;
    const kept = (before?.points ?? []).filter((p) => Math.hypot(p[0] - x, p[1] - y) > near);
    const points: Picks['points'] = [...kept, [x, y, time]];
    const after = before
      ? drawn<Picks>({ ...before, points })
      : newDrawn<Picks>({ kind: 'picks', name: tool.name, domain: 'twt', event: tool.event, points, erased: [] });
    takeTool({ ...tool, id: after.id });
    await edit(`Pick on ${after.name}`, before ? [before] : [], [after]);
  });

/** Take out the pick nearest to a place on a section. */
export const unpickAt = (picking: PickTool, line: SectionLine, trace: number, vertical: number): Promise<void> =>
  inTurn(async () => {
    const before = objectOf(asNow(picking).id) as Picks | undefined;
    if (!before) return;
    const [x, y] = placeOf(line, trace);
    const far = (p: number[]) => Math.hypot(p[0] - x, p[1] - y) / 25 + Math.abs(p[2] - vertical) / 4;
    const nearest = before.points.reduce<number[] | null>((a, p) => (!a || far(p) < far(a) ? p : a), null);
    if (!nearest || far(nearest) > 8) return;
    const points = before.points.filter((p) => p !== nearest);
    await edit(`Take a pick off ${before.name}`, [before], [drawn<Picks>({ ...before, points })]);
  });

/** Change which event is followed; what was picked stays where it is. */
export async function changeEvent(tool: PickTool, event: Picks['event']): Promise<void> {
  takeTool({ ...tool, event });
  const before = objectOf(tool.id) as Picks | undefined;
  if (before) await edit(`${before.name} follows a ${event}`, [before], [drawn<Picks>({ ...before, event })]);
}

/** Keep the stick being drawn. */
export const finishStick = (): Promise<void> =>
  inTurn(async () => {
    const { tool } = useTool.getState();
    if (tool?.kind !== 'fault') return;
    const stick = [...tool.stick].sort((a, b) => a[2] - b[2]);
    if (stick.length < 2) return takeTool({ ...tool, stick: [] });
    const before = objectOf(tool.id) as Fault | undefined;
    const after = before
      ? drawn<Fault>({ ...before, sticks: [...before.sticks, stick] })
      : newDrawn<Fault>({ kind: 'fault', name: tool.name, domain: 'twt', sticks: [stick] });
    takeTool({ ...tool, id: after.id, stick: [] });
    await edit(`Stick of ${after.name}`, before ? [before] : [], [after]);
  });

/** The track that a horizon shows: itself, or the one that it was closed from. */
export function trackBehind(horizon: Horizon): Horizon | null {
  if (horizon.madeBy.step === 'interpret.track') return horizon;
  const { byId } = useProject.getState();
  const source = byId.get(askedInputs(horizon).horizon?.[0] ?? '');
  return source?.kind === 'horizon' && source.madeBy.step === 'interpret.track' ? source : null;
}

/** Take a part of a track out and track again: the part stays empty until something is picked in it. */
export async function erase(horizon: Horizon, ring: [number, number][]): Promise<void> {
  const track = trackBehind(horizon);
  if (!track || ring.length < 3) return;
  const inputs = askedInputs(track);
  const before = objectOf(inputs.picks?.[0] ?? null) as Picks | undefined;
  const after = before
    ? drawn<Picks>({ ...before, erased: [...before.erased, ring] })
    : newDrawn<Picks>({
        kind: 'picks',
        name: freeName(useProject.getState().objects, 'picks', `Handwork on ${track.name}`),
        domain: 'twt',
        event: (track.madeBy.params.event as Picks['event']) ?? 'trough',
        points: [],
        erased: [ring],
      });
  await edit(`Erase a part of ${track.name}`, before ? [before] : [], [after]);
  await rerun(track, { picks: [after.id] });
}

/** Keep a ring drawn on the map as an area. */
export async function keepArea(name: string, ring: [number, number][]): Promise<void> {
  if (ring.length < 3) return;
  const closed: [number, number][] = [...ring, ring[0]];
  const area = newDrawn<Polygon>({
    kind: 'polygon',
    name: freeName(useProject.getState().objects, 'polygon', name),
    closed: true,
    rings: [closed],
  });
  await edit(`Draw ${area.name}`, [], [area]);
  select(area.id);
}
