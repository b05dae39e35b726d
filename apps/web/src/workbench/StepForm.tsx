import { type AnyStep, checkParams, type InputSpec, paramsSchema, type Units, type Volume } from '@lithagon/core';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { readPlane, trialTook } from '../compute/planes';
import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { type Setup, useSelection } from '../state/selection';
import { useUnits } from '../state/units';
import { Button, IconButton } from '../ui/Button';
import { Field, Range, Select } from '../ui/Field';
import { clampLine } from '../views/common/survey';
import { InputField } from './InputField';
import { Response } from './Response';
import { RowsField } from './RowsField';
import css from './Sheet.module.css';
import { runSetup, takesPlaceOf } from './steps';

interface Property {
  type?: string;
  enum?: string[];
  title?: string;
  description?: string;
  unit?: string;
  minimum?: number;
  maximum?: number;
  step?: number;
  items?: { properties?: Record<string, { type?: string }> };
}

/** A step being set up: the form, trial and estimate come from its declaration. */
export function StepForm({ setup, step }: { setup: Setup; step: AnyStep }) {
  const objects = useProject((s) => s.objects);
  const projectId = useProject((s) => s.id);
  const units = useUnits();
  const plane = useDesk((s) => s.plane);
  const lines = useDesk((s) => s.lines);
  const [took, setTook] = useState<number | null>(null);
  const properties = (paramsSchema(step).properties ?? {}) as Record<string, Property>;
  const change = (part: Partial<Setup>) => useSelection.setState({ setup: { ...setup, ...part } });
  const set = (key: string, value: unknown) => change({ params: { ...setup.params, [key]: value } });
  const local = step.local ?? step.trial;
  const volume = local
    ? (objects.find((o) => o.id === setup.inputs[local.input]?.[0]) as Volume | undefined)
    : undefined;
  const index = volume ? clampLine(volume.lattice, plane, lines[plane]) : 0;
  const paramsKey = JSON.stringify(setup.params);

  // time one line, so that the whole can be foretold
  // biome-ignore lint/correctness/useExhaustiveDependencies: measured anew for each set of parameters
  useEffect(() => {
    setTook(null);
    // what needs the whole volume for a line foretells nothing
    if (!volume || !step.local) return;
    let wanted = true;
    const timer = setTimeout(() => {
      const trial = { step: step.id, params: setup.params, inputs: setup.inputs };
      // the line next to it, so that what was read already is not read again and only the work is timed
      const near = index > 0 ? index - 1 : index + 1;
      readPlane(projectId, volume, plane, index, trial)
        .then(() => readPlane(projectId, volume, plane, near, trial))
        .then(
          () => wanted && setTook(trialTook(trial) ?? null),
          () => undefined,
        );
    }, 250);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [paramsKey, volume?.id]);

  const replaced = takesPlaceOf(setup, objects);
  let problem: string | null = null;
  try {
    checkParams(step, setup.params);
  } catch (cause) {
    problem = (cause as Error).message;
  }
  const lineCount = volume ? volume.lattice[plane].count : 0;
  const estimate = took !== null && volume ? (took * lineCount) / 1000 : null;
  return (
    <aside className={css.sheet} aria-label={step.title}>
      <header className={css.top}>
        <div>
          <h2>{step.title}</h2>
          <p>{step.summary}</p>
        </div>
        <IconButton label="Close" onClick={() => useSelection.setState({ setup: null })}>
          <X size={16} />
        </IconButton>
      </header>
      <div className={css.scroll}>
        {(Object.entries(step.inputs) as [string, InputSpec][]).map(([role, spec]) => (
          <InputField
            key={role}
            spec={spec}
            objects={objects}
            chosen={setup.inputs[role] ?? []}
            onChange={(ids) => {
              change({ inputs: { ...setup.inputs, [role]: ids } });
              if (role === local?.input) useDesk.setState({ volume: ids[0] });
            }}
          />
        ))}
        {Object.entries(properties).map(([key, p]) =>
          p.type === 'array' ? (
            <RowsField
              key={key}
              label={p.title ?? key}
              help={p.description}
              columns={p.items?.properties ?? {}}
              rows={(setup.params[key] as Record<string, unknown>[] | undefined) ?? []}
              onChange={(rows) => set(key, rows)}
            />
          ) : p.type === 'string' && !p.enum ? (
            <Field key={key} label={p.title ?? key} help={p.description}>
              {(id) => (
                <input
                  id={id}
                  className={css.typed}
                  value={String(setup.params[key] ?? '')}
                  onChange={(e) => set(key, e.target.value)}
                />
              )}
            </Field>
          ) : p.enum ? (
            <Field key={key} label={p.title ?? key} help={p.description}>
              {(id) => (
                <Select
                  id={id}
                  value={String(setup.params[key])}
                  options={(p.enum ?? []).map((v) => ({ value: v, label: v }))}
                  onChange={(v) => set(key, v)}
                />
              )}
            </Field>
          ) : (
            <Field
              key={key}
              label={p.title ?? key}
              aside={
                <Typed
                  property={shownIn(units, p)}
                  label={p.title ?? key}
                  value={units.to(Number(setup.params[key]), p.unit ?? '')}
                  onChange={(v) => set(key, units.from(v, p.unit ?? ''))}
                />
              }
              help={p.description}
            >
              {() => (
                <Range
                  label={p.title ?? key}
                  value={Number(setup.params[key])}
                  min={p.minimum ?? 0}
                  max={p.maximum ?? 100}
                  step={p.step ?? 1}
                  onChange={(v) => set(key, v)}
                />
              )}
            </Field>
          ),
        )}
        {replaced.length === 0 && (
          <Field label="Name" help="What the result is called; made from what it rests on where this is empty.">
            {(id) => (
              <input
                id={id}
                className={css.typed}
                value={setup.name ?? ''}
                maxLength={200}
                onChange={(e) => change({ name: e.target.value })}
              />
            )}
          </Field>
        )}
        {step.response && volume && <Response step={step} params={setup.params} volume={volume} />}
        {problem && <p className={css.warning}>{problem}</p>}
        {replaced.length > 0 && (
          <p className={css.note}>
            Takes the place of {replaced.map((o) => o.name).join(' and ')}; what rests on it will be out of date until
            it is rebuilt.
          </p>
        )}
        <p className={css.result}>After {step.source}</p>
      </div>
      <footer className={css.go}>
        {local && (
          <Button
            aria-pressed={setup.live}
            onClick={() => {
              if (volume && !setup.live) useDesk.setState({ volume: volume.id });
              change({ live: !setup.live });
            }}
          >
            {setup.live ? 'Back to the seismic' : 'Try on this line'}
          </Button>
        )}
        <Button main disabled={problem !== null} onClick={() => void runSetup(setup, step)}>
          {step.id === 'tie.well'
            ? 'Accept the tie'
            : local
              ? 'Run on the volume'
              : replaced.length > 0
                ? 'Run again'
                : 'Run'}
          {estimate !== null ? ` · about ${estimate < 1.5 ? '1' : estimate.toFixed(0)} s` : ''}
        </Button>
      </footer>
    </aside>
  );
}

/** A parameter as it reads in the project's units. */
function shownIn(units: Units, p: Property): Property {
  const to = (v: number | undefined) => (v === undefined ? undefined : units.to(v, p.unit ?? ''));
  return { ...p, unit: p.unit && units.of(p.unit), minimum: to(p.minimum), maximum: to(p.maximum) };
}

/** A parameter's value, typed; kept when it is left or Enter is pressed, and held within its range. */
function Typed(props: { property: Property; label: string; value: number; onChange(value: number): void }) {
  const { property: p, value } = props;
  const [text, setText] = useState<string | null>(null);
  const keep = () => {
    const typed = Number(text?.replace(',', '.'));
    if (text !== null && text.trim() !== '' && Number.isFinite(typed)) {
      const held = Math.min(p.maximum ?? typed, Math.max(p.minimum ?? typed, typed));
      props.onChange(p.type === 'integer' ? Math.round(held) : held);
    }
    setText(null);
  };
  return (
    <>
      <input
        className={css.number}
        aria-label={`${props.label}, typed`}
        inputMode="decimal"
        value={text ?? String(Number(value.toFixed(4)))}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => e.key === 'Enter' && keep()}
      />{' '}
      {p.unit ?? ''}
    </>
  );
}
