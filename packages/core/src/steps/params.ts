import { z } from 'zod';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject } from '../earth/objects.ts';
import { type AnyStep, listed, type ParamFacts, stepOf } from './define.ts';

/** Check parameters against a step's declaration; the sentence names the parameter and what it may be. */
export function checkParams(step: AnyStep, params: Record<string, unknown>): Record<string, unknown> {
  const parsed = step.params.strict().safeParse(params);
  if (parsed.success) return parsed.data as Record<string, unknown>;
  const [issue] = parsed.error.issues;
  const known = `It has the parameters ${Object.keys(step.params.shape).join(', ')}.`;
  if (issue.code === 'unrecognized_keys')
    throw new LithagonError('params', `${step.title} has no parameter “${issue.keys.join('”, “')}”.`, { fix: known });
  const key = issue.path.join('.');
  const facts = step.params.shape[String(issue.path[0])]?.meta() as Partial<ParamFacts> | undefined;
  const name = facts?.title ? `${facts.title} (${key})` : `“${key}”`;
  const fix = facts?.description ? `${facts.description} ${known}` : known;
  throw new LithagonError('params', `${step.title}: ${name} ${whyNot(issue, facts?.unit)}.`, { fix });
}

/** What is wrong with the parameters of a step, by name, each as a sentence; empty where nothing is. */
export function troublesOfParams(step: AnyStep, params: Record<string, unknown>): Record<string, string> {
  const { error } = step.params.safeParse(params);
  const out: Record<string, string> = {};
  for (const issue of error?.issues ?? []) {
    const [key, row, column] = issue.path.map(String);
    if (key === undefined || out[key]) continue;
    const facts = step.params.shape[key]?.meta() as Partial<ParamFacts> | undefined;
    const where = row === undefined ? (facts?.title ?? key) : `Row ${Number(row) + 1}${column ? `, ${column},` : ''}`;
    out[key] = `${where} ${whyNot(issue, facts?.unit)}.`;
  }
  return out;
}

/** What is wrong with a value, as the end of a sentence about it. */
function whyNot(issue: z.core.$ZodIssue, unit: string | undefined): string {
  const figure = (v: unknown) => `${v}${unit ? ` ${unit}` : ''}`;
  switch (issue.code) {
    case 'too_small':
      if (issue.origin === 'string') return 'is empty';
      return `is less than ${figure(issue.minimum)}, the least that it may be`;
    case 'too_big':
      if (issue.origin === 'string') return `has more than ${issue.maximum} letters`;
      return `is more than ${figure(issue.maximum)}, the most that it may be`;
    case 'invalid_value':
      return `is none of ${issue.values.map((v) => `“${String(v)}”`).join(', ')}`;
    case 'invalid_type':
      return `is no ${{ number: 'number', int: 'whole number', string: 'text', boolean: 'yes or no' }[issue.expected as string] ?? issue.expected}`;
    default:
      return `cannot be used: ${issue.message}`;
  }
}

/**
 * Parameters of the run that made an object, with another name for something that they name: a top or a horizon.
 * @returns the same parameters where they do not name it
 */
export function namedParams(
  { madeBy }: EarthObject,
  what: 'top' | 'horizon',
  from: string,
  to: string,
): Record<string, unknown> {
  const shape = (stepOf(madeBy.step)?.params.shape ?? {}) as Record<string, z.ZodType>;
  const out: Record<string, unknown> = {};
  for (const [key, value] of Object.entries(madeBy.params)) {
    const now = withName(shape[key], value, what, from, to);
    if (now !== value) out[key] = now;
  }
  return Object.keys(out).length > 0 ? { ...madeBy.params, ...out } : madeBy.params;
}

/** One value with another name in it, in rows too. */
function withName(schema: z.ZodType | undefined, value: unknown, what: string, from: string, to: string): unknown {
  const names = (schema?.meta() as Partial<ParamFacts> | undefined)?.names;
  if (typeof value === 'string') {
    if (names === what) return value === from ? to : value;
    if (names !== `${what}s` || !listed(value).includes(from)) return value;
    return listed(value)
      .map((name) => (name === from ? to : name))
      .join(', ');
  }
  if (!Array.isArray(value)) return value;
  const columns = rowShape(schema);
  let changed = false;
  const rows = value.map((row) => {
    if (typeof row !== 'object' || row === null) return row;
    const next = Object.fromEntries(
      Object.entries(row).map(([key, cell]) => [key, withName(columns[key], cell, what, from, to)]),
    );
    if (Object.keys(next).every((key) => next[key] === (row as Record<string, unknown>)[key])) return row;
    changed = true;
    return next;
  });
  return changed ? rows : value;
}

/** Schemas of the columns of a parameter that is rows. */
function rowShape(schema: z.ZodType | undefined): Record<string, z.ZodType> {
  const inner = schema instanceof z.ZodDefault ? (schema.unwrap() as z.ZodType) : schema;
  const element = inner instanceof z.ZodArray ? (inner.element as z.ZodType) : undefined;
  return element instanceof z.ZodObject ? (element.shape as Record<string, z.ZodType>) : {};
}

/** A run's parameters as people read them: each by its title, with its value and unit; what is as it was before is left out. */
export function shownParams(step: string, params: Record<string, unknown>): { title: string; value: string }[] {
  const shape = (stepOf(step)?.params.shape ?? {}) as Record<string, z.ZodType>;
  return Object.entries(params).map(([key, value]) => {
    const facts = shape[key]?.meta() as Partial<ParamFacts> | undefined;
    const text = valueText(value);
    const unit = facts?.unit && typeof value === 'number' ? (facts.unit === '°' ? '°' : ` ${facts.unit}`) : '';
    return { title: facts?.title ?? key, value: `${text}${unit}` };
  });
}

function valueText(value: unknown): string {
  if (value === '' || value === null || value === undefined) return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return String(value).replace('-', '−');
  if (Array.isArray(value)) {
    if (value.length === 0) return 'none';
    return value
      .map((each) =>
        typeof each === 'object' && each ? Object.values(each).map(valueText).join(' ') : valueText(each),
      )
      .join('; ');
  }
  return String(value);
}
