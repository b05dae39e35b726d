import { openView } from '../state/dock';
import { useProject } from '../state/project';
import { activeOf, changeSettings, settingsOf } from '../state/views';

/** Show what belongs to a well in the Logs, with its well among those shown. */
export function showInLogs(object: { well: string }): void {
  const view = activeOf('logs');
  const { wells } = settingsOf('logs', view);
  const well = useProject.getState().objects.find((o) => o.kind === 'well' && o.name === object.well);
  if (well && !wells.includes(well.id)) changeSettings('logs', view, { wells: [...wells, well.id] });
  openView('logs');
}
