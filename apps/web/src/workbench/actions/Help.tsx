import { useSelection } from '../../state/selection';
import { Button } from '../../ui/Button';
import { Modal } from '../../ui/Modal';
import { ACTIONS } from './actions';
import css from './Help.module.css';

const POINTER: [string, string][] = [
  ['Wheel over a section', 'step lines'],
  ['Ctrl + wheel', 'zoom at the cursor'],
  ['Space + drag', 'pan a section'],
  ['Double-click beside the data', 'fit the whole section'],
  ['Click in a section while picking', 'pick as the sheet says; the right button takes a pick away'],
  ['Double-click or Enter while drawing', 'end the stretch, stick, line or ring'],
  ['Arrows and P in a section or on the map', 'move the cursor, and pick or draw there'],
  ['Shift + Enter while picking', 'take over what the line before proposes'],
  ['Drag a colour bar', 'change the gain; a click opens its settings'],
  ['Right button on an object in a view', 'what can be done with it'],
  ['Double-click on a tab', 'fill the desk with that view'],
  ['Drag the synthetic in a tie', 'shift it; arrows too when it has the focus'],
  ['Click on the map', 'take the section there'],
  ['Drag a plane in the scene', 'move it; beside it, turn the scene'],
];

/** The keys for where you are, read off the actions themselves. */
export function Help() {
  const open = useSelection((s) => s.helpOpen);
  return (
    <Modal open={open} title="Keys" onClose={() => useSelection.setState({ helpOpen: false })}>
      <div className={css.help}>
        <dl>
          {ACTIONS.filter((a) => a.keys).map((a) => (
            <div key={a.id}>
              <dt>{a.title}</dt>
              <dd>
                <kbd>{a.keys}</kbd>
              </dd>
            </div>
          ))}
        </dl>
        <dl>
          {POINTER.map(([what, does]) => (
            <div key={what}>
              <dt>{what}</dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
      </div>
      <p>
        <Button small onClick={() => useSelection.setState({ helpOpen: false, walking: true })}>
          Walk through the workbench
        </Button>{' '}
        in under two minutes.
      </p>
      <p>
        <a href="/methods/">Every method, with its parameters and where it was published</a>
      </p>
    </Modal>
  );
}
