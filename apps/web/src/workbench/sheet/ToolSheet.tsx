import type { Fault, Horizon } from '@lithagon/core';
import { X } from 'lucide-react';
import { useMemo } from 'react';
import { finishStick, trackBehind } from '../../actions/draw';
import { sectionAlong } from '../../actions/line';
import { prepareNamed } from '../../actions/steps';
import { openView } from '../../state/dock';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { type StepTool, type Tool, takeTool } from '../../state/tool';
import { useUnits } from '../../state/units';
import { activeOf, useSettings } from '../../state/views';
import { Button, IconButton } from '../../ui/Button';
import { Field } from '../../ui/Field';
import { counted } from '../../ui/format';
import { measuredWords } from '../../views/common/measured';
import { shownWells } from '../../views/common/survey';
import { CloseDone, CloseFields } from './CloseFault';
import { PickFields } from './PickTool';
import css from './Sheet.module.css';

const WORDS = {
  pick: {
    title: 'Pick a horizon',
    help: 'Click in a section, or on a slice of the map; double-click or Enter ends a stretch, the right button takes the nearest pick away. By keyboard: arrows move the cursor, P picks.',
  },
  fault: {
    title: 'Draw a fault',
    help: 'Click down the fault in a section; double-click, right-click or Enter ends a stick, Backspace takes the last point back. By keyboard P sets a point. Go to another line for the next stick: sticks are joined to a surface.',
  },
  erase: {
    title: 'Erase a part',
    help: 'Draw round the part on the map; by keyboard, arrows move the cursor there, P sets a corner, Enter closes the ring. It is tracked again at once and stays empty, until you pick the event inside it and track again.',
  },
  wells: {
    title: 'Choose wells',
    help: 'Click wells on the map in the order in which they are to stand side by side; with Shift one goes in between those that it lies between, and a second click takes one out. By keyboard, add them in the Logs view.',
  },
  line: {
    title: 'Draw a line for the section',
    help: 'Click corners on the map, or wells; a double click or Enter ends it, and the section runs along it. A deviated well is run along. Backspace takes the last corner back; by keyboard P sets one.',
  },
  close: {
    title: 'Close a fault',
    help: 'Move the throw until beds go through, or take a peak of the match. A throw that is taken becomes a pair of picks, one on each side of the fault.',
  },
  measure: {
    title: 'Measure',
    help: 'Click two places in a section or on the map; a third begins anew.',
  },
  area: {
    title: 'Draw an area',
    help: 'Draw round it on the map; by keyboard, arrows move the cursor there, P sets a corner, Enter closes the ring. Volumes can be counted inside it.',
  },
};

/** What is being drawn: how, under which name, and what comes next. */
export function ToolSheet({ tool }: { tool: Exclude<Tool, StepTool> }) {
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
        {tool.kind === 'line' && <LineFacts tool={tool} />}
        {tool.kind === 'measure' && <MeasureFacts tool={tool} />}
        {tool.kind === 'close' && <CloseFields tool={tool} />}
      </div>
      <footer className={css.go}>
        {tool.kind === 'wells' && <WellsDone />}
        {tool.kind === 'close' && <CloseDone tool={tool} />}
        {tool.kind === 'line' && <LineDone tool={tool} />}
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

function NameField({ tool }: { tool: Extract<Tool, { name: string }> }) {
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

function LineFacts({ tool }: { tool: Extract<Tool, { kind: 'line' }> }) {
  if (tool.points.length === 0) return <p className={css.note}>No corner yet.</p>;
  return (
    <ol className={css.corners}>
      {tool.names.map((name, n) => (
        <li key={n}>{name ?? 'a corner'}</li>
      ))}
    </ol>
  );
}

function LineDone({ tool }: { tool: Extract<Tool, { kind: 'line' }> }) {
  const objects = useProject((s) => s.objects);
  const wells = useMemo(() => shownWells(objects), [objects]);
  return (
    <Button main disabled={tool.points.length < 2} onClick={() => sectionAlong(tool, wells)}>
      Show the section
    </Button>
  );
}

function MeasureFacts({ tool }: { tool: Extract<Tool, { kind: 'measure' }> }) {
  const objects = useProject((s) => s.objects);
  const units = useUnits();
  const [from, to] = tool.points;
  if (!from || !to) return <p className={css.note}>{from ? 'Click the second place.' : 'Nothing measured yet.'}</p>;
  return (
    <dl className={css.facts}>
      {measuredWords(from, to, tool.domain, objects, units).map((f) => (
        <div key={f.label}>
          <dt>{f.label}</dt>
          <dd>{f.value}</dd>
        </div>
      ))}
    </dl>
  );
}

function WellsDone() {
  const count = useSettings('logs', activeOf('logs'))[0].wells.length;
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
