import {
  askedInputs,
  drawn,
  type Fault,
  freeName,
  type Horizon,
  newDrawn,
  type Picks,
  type Polygon,
} from '@lithagon/core';
import { edit, inTurn } from '../state/history';
import { useProject } from '../state/project';
import { select } from '../state/selection';
import { takeTool, useTool } from '../state/tool';
import { rerun } from './steps';

const objectOf = (id: string | null) => (id ? useProject.getState().byId.get(id) : undefined);

/** Begin to draw a fault, or more of one. */
export function beginFault(fault?: Fault): void {
  const { objects } = useProject.getState();
  takeTool({
    kind: 'fault',
    id: fault?.id ?? null,
    name: fault?.name ?? freeName(objects, 'fault', 'Drawn fault'),
    stick: [],
  });
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
      ? drawn<Fault>({ ...before, found: undefined, sticks: [...before.sticks, stick] })
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
