import { allSteps, asideOf, type EarthObject, kindNamed } from '@lithagon/core';
import { ChevronLeft, Upload } from 'lucide-react';
import { useState } from 'react';
import { beginFault, beginPicking } from '../../actions/draw';
import { showObject } from '../../actions/show';
import { lacks, prepare, runRebuild } from '../../actions/steps';
import { colorOf } from '../../kinds';
import { bedOf } from '../../stages/beds';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { offerFiles, select, useSelection } from '../../state/selection';
import { takeTool } from '../../state/tool';
import { useUnits } from '../../state/units';
import { Button, IconButton } from '../../ui/Button';
import { chooseFiles } from '../../ui/files';
import css from './Tray.module.css';

/** The objects of a bed, and the steps that make more of them, each saying what it still lacks. */
export function Tray() {
  const stage = useDesk((s) => s.stage);
  const objects = useProject((s) => s.objects);
  const old = useProject((s) => s.old);
  const setup = useSelection((s) => s.setup);
  const bed = stage ? bedOf(stage) : undefined;
  if (!bed) return null;
  const held = objects.filter((o) => o.stage === bed.id);
  const kinds = [...new Set(held.map((o) => o.kind))];
  const steps = allSteps().filter((s) => s.stage === bed.id);
  return (
    <aside className={css.tray} aria-label={bed.name}>
      <header>
        <h2>{bed.name}</h2>
        <IconButton label="Close the tray" onClick={() => useDesk.setState({ stage: null })}>
          <ChevronLeft size={17} />
        </IconButton>
      </header>
      <div className={css.scroll}>
        {held.some((o) => old.has(o.id)) && (
          <div className={css.offer}>
            <Button onClick={() => void runRebuild()}>Rebuild what is out of date</Button>
          </div>
        )}
        {held.length === 0 && <p className={css.summary}>{bed.summary}</p>}
        {kinds.map((kind) => (
          <Members key={`${bed.id} ${kind}`} kind={kind} members={held.filter((o) => o.kind === kind)} />
        ))}
        {(bed.id === 'data' || bed.id === 'wells') && (
          <div className={css.offer}>
            <Button onClick={() => void chooseFiles().then(offerFiles)}>
              <Upload size={14} style={{ verticalAlign: -2, marginRight: 6 }} />
              Load files…
            </Button>
          </div>
        )}
        {bed.id === 'interpret' && (
          <div className={css.offer}>
            <Button onClick={() => beginPicking()}>Pick a horizon</Button>
            <Button onClick={() => beginFault()}>Draw a fault</Button>
            <Button onClick={() => takeTool({ kind: 'area', name: 'Drawn area', ring: [] })}>Draw an area</Button>
          </div>
        )}
        {steps.length > 0 && <h3>Make</h3>}
        {steps.map((step) => {
          const missing = lacks(step, objects);
          return (
            <button
              key={step.id}
              type="button"
              className={`${css.step} ${setup?.step === step.id ? css.chosen : ''}`}
              disabled={missing !== null}
              onClick={() => prepare(step)}
            >
              <strong>{step.title}</strong>
              <span>
                {missing ? (
                  <>
                    Needs <em>{missing}</em>
                  </>
                ) : (
                  step.summary
                )}
              </span>
            </button>
          );
        })}
        {steps.length === 0 && held.length === 0 && bed.id !== 'data' && bed.id !== 'wells' && (
          <p className={css.summary}>No step of this stage is here yet.</p>
        )}
      </div>
    </aside>
  );
}

/** Of a kind with more objects than this only the newest are listed until all are asked for. */
const MANY = 12;
const NEWEST = 6;

/** The objects of one kind; of many the newest, and what needs attention. */
function Members({ kind, members }: { kind: EarthObject['kind']; members: EarthObject[] }) {
  const objects = useProject((s) => s.objects);
  const old = useProject((s) => s.old);
  const waiting = useProject((s) => s.waiting);
  const selected = useSelection((s) => s.object);
  const units = useUnits();
  const [all, setAll] = useState(false);
  const listed =
    all || members.length <= MANY
      ? members
      : members.filter(
          (o, n) => n >= members.length - NEWEST || o.id === selected || old.has(o.id) || waiting.has(o.id),
        );
  const why = (o: EarthObject) => {
    if (old.has(o.id)) return `Out of date: ${old.get(o.id)}`;
    return waiting.has(o.id) ? `Waits for ${waiting.get(o.id)}` : o.name;
  };
  return (
    <section>
      <h3>
        {kindNamed(kind).plural}
        <span className="num">{members.length}</span>
      </h3>
      {members.length > MANY && (
        <button type="button" className={css.more} aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'Only the newest' : `All ${members.length}; below are the newest`}
        </button>
      )}
      {listed.map((object) => (
        <button
          key={object.id}
          type="button"
          className={`${css.object} ${selected === object.id ? css.selected : ''}`}
          aria-pressed={selected === object.id}
          title={why(object)}
          onClick={() => select(object.id)}
          onDoubleClick={() => showObject(object)}
        >
          <i style={{ background: colorOf(object, objects) }} />
          <span>{object.name}</span>
          <small className={old.has(object.id) || waiting.has(object.id) ? css.old : ''}>
            {old.has(object.id) ? 'out of date' : waiting.has(object.id) ? 'waits' : asideOf(object, units)}
          </small>
        </button>
      ))}
    </section>
  );
}
