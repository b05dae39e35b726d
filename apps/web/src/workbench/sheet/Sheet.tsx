import { bytesOf, type EarthObject, factsOf, stepOf, unitsOf } from '@lithagon/core';
import { Trash2, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { rename } from '../../actions/rename';
import { showObject } from '../../actions/show';
import { change, runRebuild } from '../../actions/steps';
import { colorOf, webKindOf } from '../../kinds';
import { edit, useHistory } from '../../state/history';
import { useProject } from '../../state/project';
import { select, useSelection } from '../../state/selection';
import { isStepTool, takeTool, useTool } from '../../state/tool';
import { Button, IconButton } from '../../ui/Button';
import { DeleteSheet } from '../../views/catalogue/BulkActions';
import { StepForm } from '../steps/StepForm';
import { DataCheck } from './DataCheck';
import { Attach, Notes } from './ObjectEdits';
import { SaveAs } from './SaveAs';
import css from './Sheet.module.css';
import { ToolSheet } from './ToolSheet';
import { Trail } from './Trail';

/** The panel at the right: the step being set up, or the object selected. */
export function Sheet() {
  const setup = useSelection((s) => s.setup);
  const selected = useSelection((s) => s.object);
  const object = useProject((s) => (selected ? s.byId.get(selected) : undefined));
  const step = setup ? stepOf(setup.step) : undefined;
  const tool = useTool((s) => s.tool);
  useEffect(() => {
    if (!setup && tool && isStepTool(tool)) takeTool(null);
  }, [setup, tool]);
  if (tool && !isStepTool(tool)) return <ToolSheet key={tool.kind} tool={tool} />;
  if (setup && step) return <StepForm key={step.id} setup={setup} step={step} />;
  if (object) return <ObjectSheet key={object.id} object={object} />;
  return null;
}

function ObjectSheet({ object }: { object: EarthObject }) {
  const objects = useProject((s) => s.objects);
  const waits = useProject((s) => s.waiting.get(object.id));
  const old = useProject((s) => s.old.get(object.id));
  const frame = useProject((s) => s.facts?.frame ?? null);
  const [deleting, setDeleting] = useState(false);
  const kind = webKindOf(object);
  return (
    <aside className={css.sheet} aria-label={object.name}>
      <header className={css.top}>
        <Name object={object} />
        <IconButton label="Close" onClick={() => select(null)}>
          <X size={16} />
        </IconButton>
      </header>
      <div className={css.scroll}>
        {old && (
          <p className={css.warning}>
            Out of date: {old}.{' '}
            <Button small onClick={() => void runRebuild(object)}>
              Rebuild
            </Button>
          </p>
        )}
        {waits && <p className={css.warning}>Waits for {waits}.</p>}
        {waits && 'well' in object && <Attach object={object} />}
        {!kind.sheetIsAll && (
          <dl className={css.facts}>
            {factsOf(object, unitsOf(frame)).map((f, n) => (
              <div key={n}>
                <dt>{f.label}</dt>
                <dd>{f.value}</dd>
              </div>
            ))}
          </dl>
        )}
        {kind.colored && (
          <label className={css.color}>
            Colour
            <input
              type="color"
              value={hex(colorOf(object, objects))}
              onChange={(e) => void edit(`Recolour ${object.name}`, [object], [{ ...object, color: e.target.value }])}
            />
          </label>
        )}
        {kind.sheet.map((Part, n) => (
          <Part key={n} object={object} />
        ))}
        <Notes object={object} />
        <h3>Trail</h3>
        <Trail object={object} />
        {bytesOf(object) > 0 && <DataCheck key={object.id} object={object} />}
        <SaveAs object={object} />
        {object.madeBy.warnings.length > 0 && (
          <>
            <h3>Notes from the run</h3>
            {object.madeBy.warnings.map((w) => (
              <p key={w} className={css.note}>
                {w}
              </p>
            ))}
          </>
        )}
      </div>
      <footer className={css.go}>
        {kind.actions.map((Action, n) => (
          <Action key={n} object={object} />
        ))}
        {stepOf(object.madeBy.step) && <Button onClick={() => change(object)}>Change…</Button>}
        <IconButton label={`Delete ${object.name}…`} onClick={() => setDeleting(true)}>
          <Trash2 size={15} />
        </IconButton>
        <Button onClick={() => showObject(object)} disabled={!kind.show}>
          Show in its view
        </Button>
      </footer>
      <DeleteSheet
        open={deleting}
        objects={[object]}
        onClose={() => setDeleting(false)}
        onDeleted={() => setDeleting(false)}
      />
    </aside>
  );
}

const hex = (color: string) => (color.startsWith('#') ? color : '#22262a');

/** The name, changed in place; a new name makes nothing out of date. */
function Name({ object }: { object: EarthObject }) {
  const [text, setText] = useState(object.name);
  // biome-ignore lint/correctness/useExhaustiveDependencies: an undo elsewhere brings another name
  useEffect(() => setText(object.name), [object.name, useHistory((s) => s.done.length)]);
  const keep = () => {
    void rename(object, text).then((done) => !done && setText(object.name));
  };
  return (
    <input
      className={css.name}
      aria-label="Name"
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur();
        if (e.key === 'Escape') setText(object.name);
      }}
    />
  );
}
