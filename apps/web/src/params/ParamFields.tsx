import {
  type AnyStep,
  curveNames,
  type EarthObject,
  formulaUnits,
  type Named,
  paramsSchema,
  timedNames,
  topNames,
  troublesOfParams,
  type Units,
} from '@lithagon/core';
import { useEffect, useState } from 'react';
import { Controller, type Resolver, useForm } from 'react-hook-form';
import { useProject } from '../state/project';
import { takeTool } from '../state/tool';
import { useUnits } from '../state/units';
import { Button } from '../ui/Button';
import { Field, Range, Select } from '../ui/Field';
import css from '../workbench/sheet/Sheet.module.css';
import { LayersField } from './LayersField';
import { FormulaField, NameField, NameListField } from './NamesField';
import { type RowColumn, RowsField } from './RowsField';
import { StrokesField } from './StrokesField';

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
  among?: string;
  place?: { keys: [string, string, string]; sets?: Record<string, unknown> };
  drawn?: 'strokes' | 'layers';
  items?: { properties?: Record<string, RowColumn> };
}

/** The parameters of a step with their units, ranges and what each does, as the step declares them. */
export function ParamFields(props: {
  step: AnyStep;
  params: Record<string, unknown>;
  /** Names of the wells whose tops and curves may be named; all of them where none is given. */
  wells?: string[];
  /** What the step is to take in, by role: values that lie among those of a volume are dragged between its ends. */
  inputs?: Record<string, string[]>;
  onChange(params: Record<string, unknown>): void;
}) {
  const { step, params, inputs } = props;
  const objects = useProject((s) => s.objects);
  const ended = (property: Property): Property => {
    const id = property.among ? inputs?.[property.among]?.[0] : undefined;
    const of = id ? objects.find((o) => o.id === id) : undefined;
    // parts are of all, whatever the volume holds
    if (property.among && params.test === 'percentiles')
      return { ...property, minimum: 0, maximum: 100, step: 1, unit: '%' };
    if (of?.kind !== 'volume') return property;
    const { min, max } = of.statistics;
    return { ...property, minimum: min, maximum: max, step: (max - min) / 200 || 1 };
  };
  const wells = props.wells?.length ? props.wells : objects.filter((o) => o.kind === 'well').map((o) => o.name);
  const properties = (paramsSchema(step).properties ?? {}) as Record<string, Property>;
  const form = useForm<Record<string, unknown>>({ values: params, resolver: resolverOf(step), mode: 'onChange' });
  const { control, trigger } = form;
  const told = JSON.stringify(params);
  // what came from elsewhere, as from a trail, is looked at too
  // biome-ignore lint/correctness/useExhaustiveDependencies: parameters are compared by what they say
  useEffect(() => void trigger(), [told, trigger]);
  return (
    <>
      {Object.entries(properties).map(([key, property]) => (
        <Controller
          key={key}
          name={key}
          control={control}
          render={({ field, fieldState }) => (
            <ParamField
              name={key}
              property={ended(property)}
              value={field.value}
              error={fieldState.error?.message}
              wells={wells}
              inputs={inputs}
              onChange={(value) => {
                field.onChange(value);
                props.onChange({ ...params, [key]: value });
              }}
            />
          )}
        />
      ))}
    </>
  );
}

/** What is wrong with the parameters, at the field that it is about, in the words that the command line has for it. */
const resolverOf =
  (step: AnyStep): Resolver<Record<string, unknown>> =>
  (values) => {
    const troubles = Object.entries(troublesOfParams(step, values));
    if (troubles.length === 0) return { values, errors: {} };
    return {
      values: {},
      errors: Object.fromEntries(troubles.map(([key, message]) => [key, { type: 'params', message }])),
    };
  };

/** One parameter, with the control that suits what it is. */
function ParamField(props: {
  name: string;
  property: Property;
  value: unknown;
  error?: string;
  wells: string[];
  inputs?: Record<string, string[]>;
  onChange(value: unknown): void;
}) {
  const { property: p, value, wells, onChange } = props;
  const units = useUnits();
  const objects = useProject((s) => s.objects);
  const facts = { label: p.title ?? props.name, help: p.description, error: props.error };
  if (p.names === 'formula')
    return (
      <FormulaField {...facts} value={String(value ?? '')} units={formulaUnits(objects, wells)} onChange={onChange} />
    );
  if (p.names) {
    const naming = { ...facts, value: String(value ?? ''), held: HELD[p.names](objects, wells), onChange };
    return p.names === 'tops' || p.names === 'curves' || p.names === 'logs' ? (
      <NameListField {...naming} />
    ) : (
      <NameField {...naming} empty={p.optional === true} />
    );
  }
  if (p.drawn === 'strokes')
    return <StrokesField {...facts} value={(value as unknown[] | undefined) ?? []} onChange={onChange} />;
  if (p.drawn === 'layers')
    return (
      <LayersField
        {...facts}
        rows={(value as Record<string, unknown>[] | undefined) ?? []}
        chosen={props.inputs?.horizons ?? []}
        onChange={onChange}
      />
    );
  if (p.type === 'array')
    return (
      <RowsField
        {...facts}
        columns={p.items?.properties ?? {}}
        rows={(value as Record<string, unknown>[] | undefined) ?? []}
        onChange={onChange}
      />
    );
  if (p.enum)
    return (
      <Field {...facts}>
        {(id) => (
          <Select
            id={id}
            value={String(value)}
            options={(p.enum ?? []).map((v) => ({ value: v, label: v }))}
            onChange={onChange}
          />
        )}
      </Field>
    );
  if (p.type === 'string')
    return (
      <Field {...facts}>
        {(id) => (
          <input
            id={id}
            className={css.typed}
            aria-invalid={props.error !== undefined}
            value={String(value ?? '')}
            onChange={(e) => onChange(e.target.value)}
          />
        )}
      </Field>
    );
  const { place } = p;
  return (
    <Field
      {...facts}
      aside={
        <Typed
          property={shownIn(units, p)}
          label={facts.label}
          value={units.to(Number(value), p.unit ?? '')}
          onChange={(v) => onChange(units.from(v, p.unit ?? ''))}
        />
      }
    >
      {() => (
        <>
          {place && (
            <Button small onClick={() => takeTool({ kind: 'place', keys: place.keys, sets: place.sets ?? {} })}>
              Point at it in a section…
            </Button>
          )}
          <Range
            label={facts.label}
            value={Math.max(p.minimum ?? 0, Math.min(p.maximum ?? 100, Number(value)))}
            min={p.minimum ?? 0}
            max={p.maximum ?? 100}
            step={p.step ?? 1}
            onChange={onChange}
          />
        </>
      )}
    </Field>
  );
}

const HELD: Record<Exclude<Named, 'formula'>, (objects: EarthObject[], wells: string[]) => string[]> = {
  top: topNames,
  tops: topNames,
  log: timedNames,
  logs: timedNames,
  curve: curveNames,
  curves: curveNames,
  horizon: (objects) => objects.flatMap((o) => (o.kind === 'horizon' ? [o.name] : [])),
};

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
