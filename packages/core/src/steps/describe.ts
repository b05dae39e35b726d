import { type AnyStep, type InputSpec, type OutputSpec, paramsSchema } from './define.ts';
import { kindsOf } from './run.ts';

interface Property {
  title?: string;
  description?: string;
  unit?: string;
  minimum?: number;
  maximum?: number;
  enum?: string[];
  default?: unknown;
}

/** A step in words, for the methods page: everything comes from its declaration. */
export interface StepDescription {
  id: string;
  version: number;
  stage: string;
  title: string;
  summary: string;
  formula?: string;
  avoid?: string;
  source: string;
  /** How its trial on a line compares with the stored result. */
  trial: string;
  inputs: { role: string; title: string; needs: string; optional: boolean }[];
  params: { key: string; title: string; description: string; range: string; initial: string }[];
  outputs: { role: string; title: string; kind: string }[];
}

function rangeOf(p: Property): string {
  if (p.enum) return p.enum.join(', ');
  if (p.minimum === undefined && p.maximum === undefined) return '';
  return `${p.minimum ?? '…'} to ${p.maximum ?? '…'}${p.unit ? ` ${p.unit}` : ''}`;
}

export function describeStep(step: AnyStep): StepDescription {
  const { id, version, stage, title, summary, formula, avoid, source } = step;
  const properties = (paramsSchema(step).properties ?? {}) as Record<string, Property>;
  return {
    id,
    version,
    stage,
    title,
    summary,
    formula,
    avoid,
    source,
    trial: step.local
      ? 'Tried on a line, it gives there what the stored result will hold.'
      : step.reach === 'trace'
        ? 'Each trace is worked on by itself.'
        : 'It looks at everything at once, so that there is no trial on a line.',
    inputs: (Object.entries(step.inputs) as [string, InputSpec][]).map(([role, spec]) => ({
      role,
      title: spec.title,
      needs: [spec.domain === 'twt' ? 'TWT' : (spec.domain ?? ''), ...(spec.quantity ?? []), kindsOf(spec)]
        .filter(Boolean)
        .join(' '),
      optional: spec.optional === true,
    })),
    params: Object.entries(properties).map(([key, p]) => ({
      key,
      title: p.title ?? key,
      description: p.description ?? '',
      range: rangeOf(p),
      initial: Array.isArray(p.default) ? 'none' : String(p.default ?? ''),
    })),
    outputs: (Object.entries(step.outputs) as [string, OutputSpec][]).map(([role, spec]) => ({
      role,
      title: spec.title,
      kind: spec.kind,
    })),
  };
}
