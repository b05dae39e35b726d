import type { Fault, Horizon, Picks } from '@lithagon/core';
import { X } from 'lucide-react';
import { changeEvent, finishStick, trackBehind } from '../../actions/draw';
import { prepareNamed } from '../../actions/steps';
import { useDesk } from '../../state/desk';
import { openView } from '../../state/dock';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { type Tool, takeTool } from '../../state/tool';
import { Button, IconButton } from '../../ui/Button';
import { Field, Range, Select } from '../../ui/Field';
import { counted } from '../../ui/format';
import css from './Sheet.module.css';

const EVENTS = ['trough', 'peak', 'zero rising', 'zero falling'] as const;

const WORDS = {
  pick: {
    title: 'Pick a horizon',
    help: 'Click in a section: the pick goes to the nearest event. Right-click takes the nearest pick away. By keyboard: arrows move the cursor in the section, Enter picks.',
  },
  fault: {
    title: 'Draw a fault',
    help: 'Click down the fault in a section; double-click, right-click or Shift+Enter ends a stick, Backspace takes the last point back. Go to another line for the next stick: sticks are joined to a surface.',
  },
  erase: {
    title: 'Erase a part',
    help: 'Draw round the part on the map; by keyboard, arrows move the cursor there, Enter sets a corner, Shift+Enter closes the ring. It is tracked again at once and stays empty, until you pick the event inside it and track again.',
  },
  wells: {
    title: 'Choose wells',
    help: 'Click wells on the map in the order in which they are to stand side by side; with Shift one goes in between those that it lies between, and a second click takes one out. By keyboard, add them in the Logs view.',
  },
  area: {
    title: 'Draw an area',
    help: 'Draw round it on the map; by keyboard, arrows move the cursor there, Enter sets a corner, Shift+Enter closes the ring. Volumes can be counted inside it.',
  },
};

/** What is being drawn: how, under which name, and what comes next. */
export function ToolSheet({ tool }: { tool: Tool }) {
  const { title, help } = WORDS[tool.kind];
  return (
    <aside className={css.sheet} aria-label={title}>
      <header className={css.top}>
        <div>
          <h2>{title}</h2>
          <p>{help}</p>
        </div>
        <IconButton label="Stop drawing" onClick={() => takeTool(null)}>
          <X size={16} />
        </IconButton>
      </header>
      <div className={css.scroll}>
        {'name' in tool && <NameField tool={tool} />}
        {tool.kind === 'pick' && <PickFields tool={tool} />}
        {tool.kind === 'fault' && <FaultFacts tool={tool} />}
        {tool.kind === 'erase' && <EraseFacts tool={tool} />}
      </div>
      <footer className={css.go}>
        {tool.kind === 'wells' && <WellsDone />}
        {tool.kind === 'pick' && (
          <Button
            main
            disabled={!tool.id}
            onClick={() => {
              takeTool(null);
              prepareNamed('interpret.track', { picks: tool.id ? [tool.id] : [], wells: [] }, tool.name);
            }}
          >
            Track from these picks
          </Button>
        )}
        {tool.kind === 'fault' && (
          <Button disabled={tool.stick.length < 2} onClick={() => void finishStick()}>
            End the stick
          </Button>
        )}
        <Button
          onClick={() => {
            void finishStick().then(() => takeTool(null));
          }}
        >
          Done
        </Button>
      </footer>
    </aside>
  );
}

function NameField({ tool }: { tool: Exclude<Tool, { kind: 'erase' | 'wells' }> }) {
  const id = 'id' in tool ? tool.id : null;
  const object = useProject((s) => (id ? s.byId.get(id) : undefined));
  const keep = (name: string) => {
    const wanted = name.trim().slice(0, 200);
    if (wanted === '' || wanted === tool.name) return;
    takeTool({ ...tool, name: wanted });
    if (object) void edit(`Rename ${object.name} to ${wanted}`, [object], [{ ...object, name: wanted }]);
  };
  return (
    <Field label="Name">
      {(field) => (
        <input
          id={field}
          className={css.typed}
          defaultValue={tool.name}
          onBlur={(e) => keep(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
      )}
    </Field>
  );
}

function PickFields({ tool }: { tool: Extract<Tool, { kind: 'pick' }> }) {
  const picks = useProject((s) => (tool.id ? (s.byId.get(tool.id) as Picks | undefined) : undefined));
  return (
    <>
      <Field label="Event" help="What of the waveform picks snap to; + is harder where the volume says so.">
        {(id) => (
          <Select
            id={id}
            value={tool.event}
            options={EVENTS.map((v) => ({ value: v, label: v }))}
            onChange={(v) => void changeEvent(tool, v as Picks['event'])}
          />
        )}
      </Field>
      <Field label="Snap within" aside={`${tool.snapMs} ms`} help="How far from the pointer the event may lie.">
        {() => (
          <Range
            label="Snap within"
            value={tool.snapMs}
            min={2}
            max={60}
            step={2}
            onChange={(snapMs) => takeTool({ ...tool, snapMs })}
          />
        )}
      </Field>
      <p className={css.note}>{picks ? `${counted(picks.points.length, 'pick')} so far.` : 'Nothing picked yet.'}</p>
    </>
  );
}

function FaultFacts({ tool }: { tool: Extract<Tool, { kind: 'fault' }> }) {
  const fault = useProject((s) => (tool.id ? (s.byId.get(tool.id) as Fault | undefined) : undefined));
  const sticks = fault?.sticks.length ?? 0;
  return (
    <p className={css.note}>
      {counted(sticks, 'stick')} kept
      {tool.stick.length > 0 ? `, ${tool.stick.length} points on the one being drawn` : ''}.
      {sticks === 1 ? ' A surface needs two.' : ''}
    </p>
  );
}

function EraseFacts({ tool }: { tool: Extract<Tool, { kind: 'erase' }> }) {
  const horizon = useProject((s) => s.byId.get(tool.horizon) as Horizon | undefined);
  const track = horizon ? trackBehind(horizon) : null;
  return <p className={css.note}>{track ? `Erases from ${track.name}.` : 'This horizon was not tracked here.'}</p>;
}

function WellsDone() {
  const count = useDesk((s) => s.logs.wells.length);
  return (
    <Button
      main
      disabled={count === 0}
      onClick={() => {
        takeTool(null);
        openView('logs');
      }}
    >
      Show {count === 1 ? 'the well' : `${count} wells`} side by side
    </Button>
  );
}
