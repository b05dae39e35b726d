import type { z } from 'zod';
import { LithagonError } from '../earth/errors.ts';
import type { AnyStep, ParamFacts } from './define.ts';

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
