import 'dockview-react/dist/styles/dockview.css';
import { DockviewReact, type DockviewReadyEvent, type IDockviewPanelHeaderProps } from 'dockview-react';
import type { ComponentType } from 'react';
import { resetDesk, useDesk } from '../../state/desk';
import { Boundary } from '../../ui/Boundary';
import { CatalogueView } from '../../views/catalogue/CatalogueView';
import { CrossplotView } from '../../views/crossplot/CrossplotView';
import { LogsView } from '../../views/logs/LogsView';
import { MapView } from '../../views/map/MapView';
import { SceneView } from '../../views/scene/SceneView';
import { SectionView } from '../../views/section/SectionView';
import { TieView } from '../../views/tie/TieView';
import css from './Desk.module.css';
import { arrangeAnew, holdDock } from './dock';

/** A view that keeps what goes wrong in it to itself. */
const kept = (what: string, View: ComponentType) => () => (
  <Boundary what={what} remedies={[{ label: 'Back to the usual desk', act: startOver }]}>
    <View />
  </Boundary>
);

function startOver(): void {
  resetDesk();
  arrangeAnew();
}

const VIEWS = {
  section: kept('The section', SectionView),
  map: kept('The map', MapView),
  scene: kept('The scene', SceneView),
  tie: kept('The tie', TieView),
  logs: kept('The logs', LogsView),
  crossplot: kept('The crossplot', CrossplotView),
  catalogue: kept('The catalogue', CatalogueView),
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
