import type { DockviewApi, SerializedDockview } from 'dockview-react';
import type { VIEW_IDS } from './readDesk';

let dock: DockviewApi | null = null;

/** Views that a desk need not hold: they open beside the section when there is something for them. */
const TITLES: Record<ViewId, string> = {
  section: 'Section',
  map: 'Map',
  scene: 'Scene',
  tie: 'Tie',
  logs: 'Logs',
  crossplot: 'Crossplot',
  catalogue: 'Catalogue',
};
/** Views that need the whole desk while they are in front. */
const WHOLE: string[] = ['tie', 'logs', 'catalogue'];
export type ViewId = (typeof VIEW_IDS)[number];

/** The desk says that it is there. */
export function holdDock(api: DockviewApi): void {
  dock = api;
  // a view that needs the whole desk gives it back when another is chosen
  api.onDidActivePanelChange(({ panel }) => {
    if (panel && !WHOLE.includes(panel.id) && api.hasMaximizedGroup()) api.exitMaximizedGroup();
    if (panel && WHOLE.includes(panel.id) && !api.hasMaximizedGroup()) panel.api.maximize();
  });
}

/** Put the views as a project without a desk has them. */
export function arrangeAnew(api: DockviewApi | null = dock): void {
  if (!api) return;
  api.clear();
  const section = api.addPanel({ id: 'section', component: 'section', title: TITLES.section });
  const map = api.addPanel({
    id: 'map',
    component: 'map',
    title: TITLES.map,
    position: { referencePanel: section, direction: 'right' },
    initialWidth: 400,
  });
  api.addPanel({
    id: 'scene',
    component: 'scene',
    title: TITLES.scene,
    position: { referencePanel: map, direction: 'below' },
  });
}

/** Put the views as an arrangement has them. */
export function arrangeAs(layout: SerializedDockview): void {
  try {
    dock?.fromJSON(layout);
  } catch {
    // an arrangement with views of another version leaves the desk as it is
  }
}

/** Bring a view to the front, opening it where it is not on the desk. */
export function openView(id: ViewId): void {
  const panel = dock?.getPanel(id);
  if (panel) {
    panel.api.setActive();
    if (WHOLE.includes(id)) panel.api.maximize();
    return;
  }
  const beside = dock?.getPanel('section');
  dock?.addPanel({
    id,
    component: id,
    title: TITLES[id],
    ...(beside ? { position: { referencePanel: beside, direction: 'within' } } : {}),
  });
}
