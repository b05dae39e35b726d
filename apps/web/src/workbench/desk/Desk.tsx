import 'dockview-react/dist/styles/dockview.css';
import { DockviewReact, type DockviewReadyEvent, type IDockviewPanelHeaderProps } from 'dockview-react';
import { type ComponentType, lazy, Suspense } from 'react';
import { resetDesk, useDesk } from '../../state/desk';
import { arrangeAnew, holdDock } from '../../state/dock';
import { Boundary } from '../../ui/Boundary';
import css from './Desk.module.css';

/** A view that is fetched when it is first shown, and keeps what goes wrong in it to itself. */
const kept = (what: string, fetched: () => Promise<ComponentType>) => {
  const View = lazy(async () => ({ default: await fetched() }));
  return () => (
    <Boundary what={what} remedies={[{ label: 'Back to the usual desk', act: startOver }]}>
      <Suspense fallback={<div className={css.fetching} aria-busy="true" />}>
        <View />
      </Suspense>
    </Boundary>
  );
};

function startOver(): void {
  resetDesk();
  arrangeAnew();
}

const VIEWS = {
  section: kept('The section', async () => (await import('../../views/section/SectionView')).SectionView),
  map: kept('The map', async () => (await import('../../views/map/MapView')).MapView),
  scene: kept('The scene', async () => (await import('../../views/scene/SceneView')).SceneView),
  tie: kept('The tie', async () => (await import('../../views/tie/TieView')).TieView),
  logs: kept('The logs', async () => (await import('../../views/logs/LogsView')).LogsView),
  crossplot: kept('The crossplot', async () => (await import('../../views/crossplot/CrossplotView')).CrossplotView),
  catalogue: kept('The catalogue', async () => (await import('../../views/catalogue/CatalogueView')).CatalogueView),
};

/** A view's tab: its name only, since a desk always holds its views. */
function Tab({ api }: IDockviewPanelHeaderProps) {
  return <span className={css.tab}>{api.title}</span>;
}

/** The middle of the workbench: views that are split, dragged and stacked; the arrangement survives a reload. */
export function Desk() {
  const ready = (event: DockviewReadyEvent) => {
    holdDock(event.api);
    const { layout } = useDesk.getState();
    try {
      if (layout) event.api.fromJSON(layout);
      else arrangeAnew(event.api);
    } catch {
      arrangeAnew(event.api);
    }
    if (event.api.panels.length === 0) arrangeAnew(event.api);
    event.api.onDidLayoutChange(() => {
      if (event.api.panels.length > 0) useDesk.setState({ layout: event.api.toJSON() });
    });
  };
  return (
    <main className={css.desk} aria-label="Desk">
      <Boundary what="The desk" remedies={[{ label: 'Back to the usual desk', act: startOver }]}>
        <DockviewReact
          defaultTabComponent={Tab}
          components={VIEWS}
          onReady={ready}
          className={`dockview-theme-abyss ${css.dock}`}
          disableFloatingGroups
        />
      </Boundary>
    </main>
  );
}
