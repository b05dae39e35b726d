import { beginFault } from '../../actions/draw';
import { beginLine } from '../../actions/line';
import { stepLine } from '../../actions/lines';
import { beginMeasuring } from '../../actions/measure';
import { beginPicking } from '../../actions/picking/picks';
import { runRebuild } from '../../actions/steps';
import { BEDS } from '../../stages/beds';
import { useDesk } from '../../state/desk';
import { addView, openView } from '../../state/dock';
import { redo, undo, useHistory } from '../../state/history';
import { offerFiles, useSelection } from '../../state/selection';
import { activeOf, changeSettings } from '../../state/views';
import { chooseFiles } from '../../ui/files';
import { drawing, switchDrawing } from '../../views/raster/drawing';
import { saveParcel } from '../sheet/save';

/** Something that can be done: registered once, and found in palette, keys and help from here. */
export interface Action {
  id: string;
  title: string;
  /** Keys as `event.key` with modifiers, such as `ctrl+k`; empty where there are none. */
  keys: string;
  run(): void;
}

export const ACTIONS: Action[] = [
  {
    id: 'palette',
    title: 'Find an object or action',
    keys: 'ctrl+k',
    run: () => useSelection.setState({ paletteOpen: true }),
  },
  { id: 'help', title: 'Show the keys', keys: '?', run: () => useSelection.setState({ helpOpen: true }) },
  {
    id: 'walk',
    title: 'Walk through the workbench',
    keys: '',
    run: () => useSelection.setState({ walking: true }),
  },
  {
    id: 'load',
    title: 'Load files',
    keys: '',
    run: () => void chooseFiles().then((files) => files.length && offerFiles(files)),
  },
  { id: 'undo', title: 'Undo', keys: 'ctrl+z', run: () => void undo() },
  { id: 'redo', title: 'Redo', keys: 'ctrl+shift+z', run: () => void redo() },
  { id: 'parcel', title: 'Save the project as a parcel', keys: '', run: () => void saveParcel() },
  { id: 'rebuild', title: 'Rebuild what is out of date', keys: '', run: () => void runRebuild() },
  ...(['section', 'map', 'scene'] as const).map((kind) => ({
    id: `another-${kind}`,
    title: `Open another ${kind}`,
    keys: '',
    run: () => void addView(kind),
  })),
  { id: 'line', title: 'Draw a line for the section on the map', keys: '', run: beginLine },
  { id: 'measure', title: 'Measure between two places', keys: 'm', run: beginMeasuring },
  { id: 'pick', title: 'Pick a horizon', keys: '', run: () => beginPicking() },
  { id: 'fault', title: 'Draw a fault', keys: '', run: () => beginFault() },
  { id: 'view-catalogue', title: 'Open the catalogue', keys: '', run: () => openView('catalogue') },
  { id: 'view-logs', title: 'Open the Logs view', keys: 'l', run: () => openView('logs') },
  { id: 'view-crossplot', title: 'Open the Crossplot', keys: 'x', run: () => openView('crossplot') },
  { id: 'view-spectrum', title: 'Open the Spectrum', keys: 'f', run: () => openView('spectrum') },
  { id: 'view-net', title: 'Open the Net', keys: 'o', run: () => openView('net') },
  { id: 'view-pay', title: 'Open Net pay', keys: '', run: () => openView('pay') },
  { id: 'view-velocity', title: 'Open Velocity', keys: '', run: () => openView('velocity') },
  { id: 'view-tie', title: 'Open the Tie view', keys: '', run: () => openView('tie') },
  { id: 'line-before', title: 'Line before', keys: ',', run: () => stepLine(-1) },
  { id: 'line-next', title: 'Next line', keys: '.', run: () => stepLine(1) },
  { id: 'ten-before', title: 'Ten lines before', keys: 'shift+<', run: () => stepLine(-10) },
  { id: 'ten-next', title: 'Ten lines on', keys: 'shift+>', run: () => stepLine(10) },
  {
    id: 'inline',
    title: 'Show inlines',
    keys: '',
    run: () => changeSettings('section', activeOf('section'), { along: 'inline', line: null }),
  },
  {
    id: 'crossline',
    title: 'Show crosslines',
    keys: '',
    run: () => changeSettings('section', activeOf('section'), { along: 'crossline', line: null }),
  },
  {
    id: 'theme',
    title: 'Light or dark',
    keys: '',
    run: () => useDesk.setState((s) => ({ theme: s.theme === 'dark' ? 'light' : 'dark' })),
  },
  { id: 'drawing', title: 'Draw with the graphics card or the processor', keys: '', run: switchDrawing },
  ...BEDS.map((bed) => ({
    id: `bed-${bed.id}`,
    title: `Open ${bed.name}`,
    keys: bed.digit,
    run: () => useDesk.setState({ stage: bed.id }),
  })).reverse(),
];

/** What undo and redo would do, by name. */
export function titleNow(action: Action): string {
  const { done, undone } = useHistory.getState();
  if (action.id === 'undo' && done.length) return `Undo: ${done[done.length - 1].name}`;
  if (action.id === 'redo' && undone.length) return `Redo: ${undone[undone.length - 1].name}`;
  if (action.id === 'drawing')
    return `Draw sections and maps with the ${drawing() === 'processor' ? 'graphics card' : 'processor'}`;
  return action.title;
}

/** Run the action of a key press, unless a field has the focus. */
export function onKey(event: KeyboardEvent): void {
  const target = event.target as HTMLElement;
  const typing = target.isContentEditable || /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName);
  const modified = event.ctrlKey || event.metaKey;
  if (typing && !(modified && event.key.toLowerCase() === 'k')) return;
  if (document.querySelector('[role="dialog"]')) return;
  const shift = event.shiftKey && (modified || /^[<>]$/.test(event.key)) ? 'shift+' : '';
  const keys = `${modified ? 'ctrl+' : ''}${shift}${event.key.toLowerCase()}`;
  const action = ACTIONS.find((a) => a.keys === keys);
  if (!action) return;
  event.preventDefault();
  action.run();
}
