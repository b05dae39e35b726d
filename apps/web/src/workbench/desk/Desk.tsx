import 'dockview-react/dist/styles/dockview.css';
import {
  DockviewReact,
  type DockviewReadyEvent,
  type IDockviewHeaderActionsProps,
  type IDockviewPanelHeaderProps,
  type IDockviewPanelProps,
} from 'dockview-react';
import { ExternalLink, Maximize2, Minimize2, Plus, X } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { type FunctionComponent, lazy, Suspense, useEffect, useState } from 'react';
import { resetDesk, useDesk } from '../../state/desk';
import { addView, arrangeAnew, holdDock, popOut, toggleLarge } from '../../state/dock';
import { HereProvider } from '../../state/here';
import { SEVERAL, titleOf, type ViewKind } from '../../state/views';
import { Boundary } from '../../ui/Boundary';
import { IconButton } from '../../ui/Button';
import { VIEWS } from '../../views';
import css from './Desk.module.css';

/** A view that is fetched when it is first shown, and keeps what goes wrong in it to itself. */
const kept = (kind: ViewKind): FunctionComponent<IDockviewPanelProps> => {
  const View = lazy(async () => ({ default: await VIEWS[kind].load() }));
  return ({ api }) => (
    <HereProvider value={api.id}>
      <Boundary what={VIEWS[kind].what} remedies={[{ label: 'Back to the usual desk', act: startOver }]}>
        <Suspense fallback={<div className={css.fetching} aria-busy="true" />}>
          <View />
        </Suspense>
      </Boundary>
    </HereProvider>
  );
};

function startOver(): void {
  resetDesk();
  arrangeAnew();
}

const KINDS = Object.keys(VIEWS) as ViewKind[];
const PANELS = Object.fromEntries(KINDS.map((kind) => [kind, kept(kind)]));

/** A view's tab: its name; what closes the view stands beside the tabs. */
function Tab({ api }: IDockviewPanelHeaderProps) {
  return (
    <span
      className={css.tab}
      onDoubleClick={() => toggleLarge(api.group)}
      title="Double-click to fill the desk with it"
    >
      {titleOf(api.id)}
    </span>
  );
}

/** Opens another view beside those of a group. */
function OpenView({ activePanel, panels }: IDockviewHeaderActionsProps) {
  const beside = activePanel?.id ?? panels[0]?.id;
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={css.open} aria-label="Open a view here" title="Open a view here">
        <Plus size={13} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={css.menu} align="start" sideOffset={3}>
          {KINDS.filter((kind) => SEVERAL.includes(kind) || !useDesk.getState().layout?.panels[kind]).map((kind) => {
            const { Icon, shows } = VIEWS[kind];
            return (
              <DropdownMenu.Item key={kind} className={css.item} onSelect={() => addView(kind, { beside })}>
                <Icon size={15} aria-hidden="true" />
                <span>
                  {titleOf(kind)}
                  <small>{shows}</small>
                </span>
              </DropdownMenu.Item>
            );
          })}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Fills the desk with a group of views, puts it into a window of its own, or closes the view in front. */
function GroupActions({ group, containerApi, location, activePanel }: IDockviewHeaderActionsProps) {
  const [large, setLarge] = useState(group.api.isMaximized());
  useEffect(() => {
    const listening = containerApi.onDidMaximizedGroupChange(() => setLarge(group.api.isMaximized()));
    return () => listening.dispose();
  }, [containerApi, group]);
  if (location?.type === 'popout') return null;
  return (
    <span className={css.actions}>
      <IconButton label={large ? 'Give the desk back' : 'Fill the desk'} onClick={() => toggleLarge(group)}>
        {large ? <Minimize2 size={12} /> : <Maximize2 size={12} />}
      </IconButton>
      <IconButton label="Into a window of its own" onClick={() => void popOut(group)}>
        <ExternalLink size={12} />
      </IconButton>
      {activePanel && (
        <IconButton
          label={`Close ${titleOf(activePanel.id)}`}
          disabled={containerApi.panels.length < 2}
          onClick={() => activePanel.api.close()}
        >
          <X size={12} />
        </IconButton>
      )}
    </span>
  );
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
    const keep = () => event.api.panels.length > 0 && useDesk.setState({ layout: event.api.toJSON() });
    keep();
    event.api.onDidLayoutChange(keep);
  };
  return (
    <main className={css.desk} aria-label="Desk">
      <Boundary what="The desk" remedies={[{ label: 'Back to the usual desk', act: startOver }]}>
        <DockviewReact
          defaultTabComponent={Tab}
          leftHeaderActionsComponent={OpenView}
          rightHeaderActionsComponent={GroupActions}
          components={PANELS}
          onReady={ready}
          className={`dockview-theme-abyss ${css.dock}`}
          disableFloatingGroups
        />
      </Boundary>
    </main>
  );
}
