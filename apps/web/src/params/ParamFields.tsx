import {
  type AnyStep,
  curveNames,
  type EarthObject,
  formulaUnits,
  type Named,
  paramsSchema,
  topNames,
  type Units,
} from '@lithagon/core';
import { useState } from 'react';
import { useProject } from '../state/project';
import { useUnits } from '../state/units';
import { Field, Range, Select } from '../ui/Field';
import css from '../workbench/sheet/Sheet.module.css';
import { FormulaField, NameField, NameListField } from './NamesField';
import { type RowColumn, RowsField } from './RowsField';

interface Property {
  type?: string;
  enum?: string[];
  title?: string;
  description?: string;
  unit?: string;
  minimum?: number;
  maximum?: number;
  step?: number;
  optional?: boolean;
  names?: Named;
  items?: { properties?: Record<string, RowColumn> };
}

/** The parameters of a step with their units, ranges and what each does, as the step declares them. */
export function ParamFields(props: {
  step: AnyStep;
  params: Record<string, unknown>;
  /** Names of the wells whose tops and curves may be named; all of them where none is given. */
  wells?: string[];
  onChange(params: Record<string, unknown>): void;
}) {
  const { step, params } = props;
  const units = useUnits();
  const objects = useProject((s) => s.objects);
  const wells = props.wells?.length ? props.wells : objects.filter((o) => o.kind === 'well').map((o) => o.name);
  const properties = (paramsSchema(step).properties ?? {}) as Record<string, Property>;
  const set = (key: string, value: unknown) => props.onChange({ ...params, [key]: value });
  return (
    <>
      {Object.entries(properties).map(([key, p]) =>
        p.names === 'formula' ? (
          <FormulaField
            key={key}
            label={p.title ?? key}
            help={p.description}
            value={String(params[key] ?? '')}
            units={formulaUnits(objects, wells)}
            onChange={(v) => set(key, v)}
          />
        ) : p.names ? (
          <Naming
            key={key}
            property={p}
            names={p.names}
            value={String(params[key] ?? '')}
            held={HELD[p.names](objects, wells)}
            onChange={(v) => set(key, v)}
          />
        ) : p.type === 'array' ? (
          <RowsField
            key={key}
            label={p.title ?? key}
            help={p.description}
            columns={p.items?.properties ?? {}}
            rows={(params[key] as Record<string, unknown>[] | undefined) ?? []}
            onChange={(rows) => set(key, rows)}
          />
        ) : p.type === 'string' && !p.enum ? (
          <Field key={key} label={p.title ?? key} help={p.description}>
            {(id) => (
              <input
                id={id}
                className={css.typed}
                value={String(params[key] ?? '')}
                onChange={(e) => set(key, e.target.value)}
              />
            )}
          </Field>
        ) : p.enum ? (
          <Field key={key} label={p.title ?? key} help={p.description}>
            {(id) => (
              <Select
                id={id}
                value={String(params[key])}
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
                value={units.to(Number(params[key]), p.unit ?? '')}
                onChange={(v) => set(key, units.from(v, p.unit ?? ''))}
              />
            }
            help={p.description}
          >
            {() => (
              <Range
                label={p.title ?? key}
                value={Number(params[key])}
                min={p.minimum ?? 0}
                max={p.maximum ?? 100}
                step={p.step ?? 1}
                onChange={(v) => set(key, v)}
              />
            )}
          </Field>
        ),
      )}
    </>
  );
}

const HELD: Record<Exclude<Named, 'formula'>, (objects: EarthObject[], wells: string[]) => string[]> = {
  top: topNames,
  tops: topNames,
  curve: curveNames,
  curves: curveNames,
  horizon: (objects) => objects.flatMap((o) => (o.kind === 'horizon' ? [o.name] : [])),
};

/** A parameter that names something which wells have. */
function Naming(props: {
  property: Property;
  names: Exclude<Named, 'formula'>;
  value: string;
  held: string[];
  onChange(v: string): void;
}) {
  const { property: p, names, ...rest } = props;
  const facts = { label: p.title ?? '', help: p.description, ...rest };
  if (names === 'tops' || names === 'curves') return <NameListField {...facts} />;
  return <NameField {...facts} empty={p.optional === true} />;
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
