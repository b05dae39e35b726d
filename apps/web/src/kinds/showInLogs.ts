import { useDesk } from '../state/desk';
import { openView } from '../state/dock';
import { useProject } from '../state/project';

/** Show what belongs to a well in the Logs, with its well among those shown. */
export function showInLogs(object: { well: string }): void {
  const { logs } = useDesk.getState();
  const well = useProject.getState().objects.find((o) => o.kind === 'well' && o.name === object.well);
  if (well && !logs.wells.includes(well.id)) useDesk.setState({ logs: { ...logs, wells: [...logs.wells, well.id] } });
  openView('logs');
}
