import 'dockview-react/dist/styles/dockview.css';
import {
  type DockviewApi,
  DockviewReact,
  type DockviewReadyEvent,
  type IDockviewPanelHeaderProps,
} from 'dockview-react';
import { useDesk } from '../../state/desk';
import { CatalogueView } from '../../views/catalogue/CatalogueView';
import { CrossplotView } from '../../views/crossplot/CrossplotView';
import { LogsView } from '../../views/logs/LogsView';
import { MapView } from '../../views/map/MapView';
import { SceneView } from '../../views/scene/SceneView';
import { SectionView } from '../../views/section/SectionView';
import { TieView } from '../../views/tie/TieView';
import css from './Desk.module.css';
import { holdDock } from './dock';

const VIEWS = {
  section: () => <SectionView />,
  map: () => <MapView />,
  scene: () => <SceneView />,
  tie: () => <TieView />,
  logs: () => <LogsView />,
  crossplot: () => <CrossplotView />,
  catalogue: () => <CatalogueView />,
};

/** A view's tab: its name only, since a desk always holds its views. */
function Tab({ api }: IDockviewPanelHeaderProps) {
  return <span className={css.tab}>{api.title}</span>;
}

function arrange(api: DockviewApi): void {
  api.clear();
  const section = api.addPanel({ id: 'section', component: 'section', title: 'Section' });
  const map = api.addPanel({
    id: 'map',
    component: 'map',
    title: 'Map',
    position: { referencePanel: section, direction: 'right' },
    initialWidth: 400,
  });
  api.addPanel({
    id: 'scene',
    component: 'scene',
    title: 'Scene',
    position: { referencePanel: map, direction: 'below' },
  });
}

/** The middle of the workbench: views that are split, dragged and stacked; the arrangement survives a reload. */
export function Desk() {
  const ready = (event: DockviewReadyEvent) => {
    holdDock(event.api);
    const { layout } = useDesk.getState();
    try {
      if (layout) event.api.fromJSON(layout);
      else arrange(event.api);
    } catch {
      arrange(event.api);
    }
    if (event.api.panels.length === 0) arrange(event.api);
    event.api.onDidLayoutChange(() => {
      if (event.api.panels.length > 0) useDesk.setState({ layout: event.api.toJSON() });
    });
  };
  return (
    <main className={css.desk} aria-label="Desk">
      <DockviewReact
        defaultTabComponent={Tab}
        components={VIEWS}
        onReady={ready}
        className={`dockview-theme-abyss ${css.dock}`}
        disableFloatingGroups
      />
    </main>
  );
}
