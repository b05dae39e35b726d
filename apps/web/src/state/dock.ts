import type { DockviewApi, DockviewGroupPanel, SerializedDockview } from 'dockview-react';
import { toast } from 'sonner';
import { useDesk } from './desk';
import { kindOfView, titleOf, type ViewKind } from './views';
import { lookIn, viewIn } from './views/index';
import { USUAL } from './views/settings';

let dock: DockviewApi | null = null;

/** Views that need the whole desk while they are in front. */
const WHOLE: ViewKind[] = ['tie', 'logs', 'catalogue'];
/** Views that open under the section, since what is done in them is seen in it; one lies behind the other. */
const UNDER: ViewKind[] = ['spectrum', 'crossplot', 'net', 'pay', 'velocity'];
const needsAll = (id: string) => WHOLE.some((kind) => kind === kindOfView(id));

/** The desk says that it is there. */
export function holdDock(api: DockviewApi): void {
  dock = api;
  api.onDidActivePanelChange(({ panel }) => {
    if (!panel) return;
    const { id } = panel;
    useDesk.setState((s) => ({ active: id, recent: [id, ...s.recent.filter((each) => each !== id)].slice(0, 50) }));
    // a view that needs the whole desk gives it back when another is chosen
    if (!needsAll(id) && api.hasMaximizedGroup() && !chosenLarge.has(panel.group.id)) api.exitMaximizedGroup();
    if (needsAll(id) && !api.hasMaximizedGroup()) panel.api.maximize();
  });
  api.onDidRemovePanel(({ id }) =>
    useDesk.setState((s) => ({
      active: s.active === id ? null : s.active,
      recent: s.recent.filter((each) => each !== id),
    })),
  );
}

/** Groups that a person gave the whole desk. */
const chosenLarge = new Set<string>();

/** Give a group of views the whole desk, or the desk back to all. */
export function toggleLarge(group: Pick<DockviewGroupPanel, 'id' | 'api'>): void {
  if (group.api.isMaximized()) {
    chosenLarge.delete(group.id);
    group.api.exitMaximized();
  } else {
    chosenLarge.add(group.id);
    group.api.maximize();
  }
}

/** Put a group of views into a window of its own; they stay linked with the others. */
export async function popOut(group: DockviewGroupPanel): Promise<void> {
  const opened = await dock?.addPopoutGroup(group, {
    popoutUrl: '/window/',
    onDidOpen: ({ window: other }) => {
      other.document.documentElement.dataset.theme = document.documentElement.dataset.theme;
    },
  });
  if (!opened) toast('The browser did not open a window. Allow pop-up windows for this page, and try again.');
}

/** Put the views as a project without a desk has them. */
export function arrangeAnew(api: DockviewApi | null = dock): void {
  if (!api) return;
  api.clear();
  const section = add(api, 'section');
  const map = add(api, 'map', {
    position: { referencePanel: section, direction: 'right' },
    initialWidth: Math.max(400, Math.round(0.36 * api.width)),
  });
  add(api, 'scene', { position: { referencePanel: map, direction: 'below' } });
  section.api.setActive();
}

type Where = Partial<Parameters<DockviewApi['addPanel']>[0]>;

const add = (api: DockviewApi, id: string, where: Where = {}) =>
  api.addPanel({ ...where, id, component: kindOfView(id) ?? id, title: titleOf(id) } as Parameters<
    DockviewApi['addPanel']
  >[0]);

/** Put the views as an arrangement has them. */
export function arrangeAs(layout: SerializedDockview): void {
  try {
    dock?.fromJSON(layout);
  } catch {
    // an arrangement with views of another version leaves the desk as it is
  }
}

/** Bring a view of a kind to the front, opening one where there is none on the desk. */
export function openView(kind: ViewKind): void {
  const open = [useDesk.getState().active, ...useDesk.getState().recent, kind];
  const id = open.find((each): each is string => each !== null && kindOfView(each) === kind && !!dock?.getPanel(each));
  const panel = dock?.getPanel(id ?? kind);
  if (panel) {
    panel.api.setActive();
    if (needsAll(panel.id)) panel.api.maximize();
    return;
  }
  if (!dock) return;
  const beside = dock.getPanel('section') ?? dock.activePanel;
  if (!beside) return void add(dock, kind);
  // what lies under a view that needs the whole desk would leave neither any room
  const front = beside.group.activePanel;
  if (!UNDER.includes(kind) || (front && needsAll(front.id)))
    return void add(dock, kind, { position: { referencePanel: beside, direction: 'within' } });
  const other = UNDER.flatMap((each) => dock?.getPanel(each) ?? [])[0];
  if (other) return void add(dock, kind, { position: { referencePanel: other, direction: 'within' } });
  const initialHeight = Math.round(0.58 * beside.group.height);
  add(dock, kind, { position: { referencePanel: beside, direction: 'below' }, initialHeight });
}

/** A name for another view of a kind: one that no panel has. */
function freeId(kind: ViewKind): string {
  const taken = (id: string) => dock?.getPanel(id) !== undefined;
  if (!taken(kind)) return kind;
  let n = 2;
  while (taken(`${kind}-${n}`)) n++;
  return `${kind}-${n}`;
}

/**
 * Open another view of a kind. It begins as the last of its kind was and from then on is its own.
 * @param beside panel that it goes to: into its group, or to the right of it
 * @returns the new view's id
 */
export function addView(
  kind: ViewKind,
  { beside, direction = 'within' }: { beside?: string; direction?: 'within' | 'right' | 'below' } = {},
): string {
  const desk = useDesk.getState();
  const like = [desk.active, ...desk.recent].find((id): id is string => id !== null && kindOfView(id) === kind);
  const id = freeId(kind);
  if (like && like !== id) {
    const view = viewIn(desk, like);
    const settings =
      'volume' in USUAL[kind] ? { ...view.settings, volume: view.settings.volume ?? desk.volume } : view.settings;
    useDesk.setState((s) => ({ views: { ...s.views, [id]: { ...view, own: lookIn(s, like), settings } } }));
  }
  if (!dock) return id;
  const reference = (beside && dock.getPanel(beside)) || dock.activePanel;
  add(dock, id, reference ? { position: { referencePanel: reference, direction } } : {});
  return id;
}
