import type { MathNode } from 'mathjs';
import { LithagonError } from '../earth/errors.ts';
import { dimensionOf, factor, unitNamed } from '../earth/units.ts';

/**
 * Formulas over curves in ordinary notation: `(GR − 20) / 110`, `0.31 * in(VP, "m/s")^0.25`, `PHI > 0.1 ? 1 : 0`. The
 * text is parsed by mathjs and walked here over whole curves; nothing of it is ever evaluated as code.
 */
export interface Variable {
  /** SI values, NaN null. */
  values: Float32Array;
  unit: string;
}

/** Exponents of the dimensions that a value has; null for a plain number, which fits anywhere. */
type Dimension = Record<string, number> | null;
interface Value {
  values: Float32Array | number;
  dimension: Dimension;
}

/** What units of curves are made of. */
const MADE_OF: Record<string, Record<string, number>> = {
  length: { length: 1 },
  time: { time: 1 },
  slowness: { time: 1, length: -1 },
  velocity: { length: 1, time: -1 },
  density: { mass: 1, length: -3 },
  pressure: { mass: 1, length: -1, time: -2 },
  volume: { length: 3 },
  resistivity: { resistivity: 1, length: 1 },
  impedance: { mass: 1, length: -2, time: -1 },
};
const SI: Record<string, string> = {
  length: 'm',
  time: 's',
  slowness: 's/m',
  velocity: 'm/s',
  density: 'kg/m3',
  pressure: 'Pa',
  volume: 'm3',
  resistivity: 'ohm.m',
  impedance: 'kg/m²s',
};

/** Dimension and factor to SI of a unit; plain where it is a fraction, a gamma-ray unit, an angle or unknown. */
function unitFacts(unit: string): { dimension: Dimension; toSi: number } {
  if (/^kg\/m[²2]s$/.test(unit)) return { dimension: MADE_OF.impedance, toSi: 1 };
  const named = unitNamed(unit);
  const dimension = named ? dimensionOf(named) : null;
  if (!named || !dimension || !MADE_OF[dimension]) return { dimension: null, toSi: 1 };
  return { dimension: MADE_OF[dimension], toSi: factor(named, SI[dimension]) };
}

/** What a dimension is called and its SI unit; made of base units where it has no name. */
function known(d: Dimension): { name: string | null; unit: string } {
  if (plain(d)) return { name: null, unit: '' };
  const name = Object.keys(MADE_OF).find((k) => alike(MADE_OF[k], d));
  if (name) return { name, unit: SI[name] };
  const base: Record<string, string> = { mass: 'kg', length: 'm', time: 's', resistivity: 'ohm' };
  const raised = (v: number) =>
    v === 1
      ? ''
      : Number.isInteger(v)
        ? String(v).replace(/[-\d]/g, (c) => '⁻⁰¹²³⁴⁵⁶⁷⁸⁹'['-0123456789'.indexOf(c)])
        : `^${v}`;
  const parts = Object.entries(d ?? {}).filter(([, v]) => Math.abs(v) > 1e-9);
  return { name: null, unit: parts.map(([k, v]) => `${base[k]}${raised(Number(v.toFixed(4)))}`).join('·') };
}
const named = (d: Dimension) => (plain(d) ? 'a plain number' : (known(d).name ?? `in ${known(d).unit}`));
/** A part of a formula with what it measures, as refusals write it. */
const told = (node: Walked | undefined, d: Dimension) => {
  const text = String(node?.text).slice(0, 40);
  return text === named(d) ? text : `${text} (${named(d)})`;
};
const plain = (d: Dimension) => d === null || Object.values(d).every((v) => Math.abs(v) < 1e-9);
const alike = (a: Dimension, b: Dimension) =>
  [...new Set([...Object.keys(a ?? {}), ...Object.keys(b ?? {})])].every(
    (k) => Math.abs((a?.[k] ?? 0) - (b?.[k] ?? 0)) < 1e-9,
  );
const joined = (a: Dimension, b: Dimension, sign: number): Dimension => {
  if (a === null && b === null) return null;
  const out: Record<string, number> = { ...(a ?? {}) };
  for (const [k, v] of Object.entries(b ?? {})) out[k] = (out[k] ?? 0) + sign * v;
  return out;
};

const FUNCTIONS: Record<string, (x: number) => number> = {
  sqrt: Math.sqrt,
  exp: Math.exp,
  log: Math.log,
  log10: Math.log10,
  abs: Math.abs,
  sin: Math.sin,
  cos: Math.cos,
  tan: Math.tan,
};

/** What may be called in a formula. */
export const FUNCTION_NAMES = ['in', 'min', 'max', ...Object.keys(FUNCTIONS)];

const refuse = (message: string, fix?: string) => new LithagonError('formula', message, { fix });

function each(n: number, a: Value['values'], b: Value['values'], f: (x: number, y: number) => number) {
  if (typeof a === 'number' && typeof b === 'number') return f(a, b);
  const out = new Float32Array(n);
  for (let k = 0; k < n; k++) out[k] = f(typeof a === 'number' ? a : a[k], typeof b === 'number' ? b : b[k]);
  return out;
}

/** A comparison with a null says nothing. */
const sure = (x: number, y: number, yes: boolean) => (Number.isNaN(x + y) ? Number.NaN : yes ? 1 : 0);
const COMPARE: Record<string, (x: number, y: number) => number> = {
  '<': (x, y) => sure(x, y, x < y),
  '>': (x, y) => sure(x, y, x > y),
  '<=': (x, y) => sure(x, y, x <= y),
  '>=': (x, y) => sure(x, y, x >= y),
  '==': (x, y) => sure(x, y, x === y),
  '!=': (x, y) => sure(x, y, x !== y),
};

// the parser's nodes, as far as they are walked
interface Walked {
  type: string;
  op?: string;
  name?: string;
  value?: unknown;
  args?: Walked[];
  content?: Walked;
  fn?: { name?: string };
  condition?: Walked;
  trueExpr?: Walked;
  falseExpr?: Walked;
  /** As it is written in refusals. */
  text?: string;
}

function walk(node: Walked, variables: Map<string, Variable>, n: number): Value {
  const down = (next: Walked | undefined) => walk(next as Walked, variables, n);
  switch (node.type) {
    case 'ConstantNode':
      if (typeof node.value !== 'number') throw refuse('A text has no place there.');
      return { values: node.value, dimension: null };
    case 'ParenthesisNode':
      return down(node.content);
    case 'SymbolNode': {
      const name = node.name ?? '';
      if (name === 'pi') return { values: Math.PI, dimension: null };
      const found = variables.get(name);
      if (!found)
        throw new LithagonError('curve', `There is no curve “${name}”.`, {
          fix: `There are ${[...variables.keys()].slice(0, 30).join(', ')}.`,
        });
      const { dimension, toSi } = unitFacts(found.unit);
      return { values: dimension && toSi !== 1 ? found.values.map((v) => v * toSi) : found.values, dimension };
    }
    case 'ConditionalNode': {
      const [test, yes, no] = [down(node.condition), down(node.trueExpr), down(node.falseExpr)];
      if (yes.dimension && no.dimension && !alike(yes.dimension, no.dimension))
        throw refuse(
          `${told(node.trueExpr, yes.dimension)} and ${told(node.falseExpr, no.dimension)} cannot be the two branches of one result.`,
        );
      const pick = (v: Value['values'], k: number) => (typeof v === 'number' ? v : v[k]);
      const out = new Float32Array(n);
      for (let k = 0; k < n; k++) {
        const t = pick(test.values, k);
        out[k] = Number.isNaN(t) ? Number.NaN : t !== 0 ? pick(yes.values, k) : pick(no.values, k);
      }
      return { values: out, dimension: yes.dimension ?? no.dimension };
    }
    case 'FunctionNode':
      return call(node, variables, n);
    case 'OperatorNode':
      return operate(node, variables, n);
    default:
      throw refuse('Only sums, products, powers, comparisons, conditions and functions may be written.');
  }
}

function call(node: Walked, variables: Map<string, Variable>, n: number): Value {
  const name = node.fn?.name ?? '';
  const args = node.args ?? [];
  if (name === 'in') {
    const unit = args[1]?.value;
    if (args.length !== 2 || typeof unit !== 'string') throw refuse('in(curve, "unit") takes a curve and a unit.');
    const value = walk(args[0], variables, n);
    const { dimension, toSi } = unitFacts(unit);
    if (!dimension || !alike(dimension, value.dimension))
      throw refuse(`“${unit}” does not measure ${told(args[0], value.dimension)}.`, 'Write a unit of that quantity.');
    return { values: each(n, value.values, toSi, (x, f) => x / f), dimension: null };
  }
  const values = args.map((a) => walk(a, variables, n));
  if (name === 'min' || name === 'max') {
    if (values.length < 2) throw refuse(`${name} takes two values or more.`);
    return values.reduce((a, b, k) => {
      if (a.dimension && b.dimension && !alike(a.dimension, b.dimension))
        throw refuse(`${told(args[0], a.dimension)} and ${told(args[k], b.dimension)} have no common ${name}.`);
      return { values: each(n, a.values, b.values, Math[name]), dimension: a.dimension ?? b.dimension };
    });
  }
  if (!Object.hasOwn(FUNCTIONS, name) || values.length !== 1)
    throw refuse(
      `There is no function “${name}” of ${values.length} values.`,
      `There are ${FUNCTION_NAMES.join(', ')}.`,
    );
  const [a] = values;
  if (name === 'abs' || name === 'sqrt') {
    const dimension =
      name === 'sqrt' && a.dimension
        ? Object.fromEntries(Object.entries(a.dimension).map(([k, v]) => [k, v / 2]))
        : a.dimension;
    return { values: each(n, a.values, 0, FUNCTIONS[name]), dimension };
  }
  if (!plain(a.dimension))
    throw refuse(
      `${name} takes a plain number, not ${told(args[0], a.dimension)}.`,
      'Divide it by a value of its kind, or write in(curve, "unit").',
    );
  return { values: each(n, a.values, 0, FUNCTIONS[name]), dimension: null };
}

function operate(node: Walked, variables: Map<string, Variable>, n: number): Value {
  const op = node.op ?? '';
  const [a, b] = (node.args ?? []).map((x) => walk(x, variables, n));
  if (!b) {
    if (op !== '-' && op !== '+') throw refuse(`“${op}” is not known.`);
    return op === '-' ? { ...a, values: each(n, a.values, 0, (x) => -x) } : a;
  }
  if (op === '*' || op === '/')
    return {
      values: each(n, a.values, b.values, op === '*' ? (x, y) => x * y : (x, y) => x / y),
      dimension: joined(a.dimension, b.dimension, op === '*' ? 1 : -1),
    };
  if (op === '^') {
    if (!plain(b.dimension)) throw refuse(`A power is a plain number, not ${told(node.args?.[1], b.dimension)}.`);
    if (!plain(a.dimension) && typeof b.values !== 'number')
      throw refuse('The power of a quantity with a unit is one number.', 'Write in(curve, "unit") for a plain value.');
    const power = typeof b.values === 'number' ? b.values : 1;
    return {
      values: each(n, a.values, b.values, (x, y) => x ** y),
      dimension: a.dimension && Object.fromEntries(Object.entries(a.dimension).map(([k, v]) => [k, v * power])),
    };
  }
  const isSum = op === '+' || op === '-';
  if (!isSum && !Object.hasOwn(COMPARE, op)) throw refuse(`“${op}” is not known.`);
  // a number beside a quantity is taken in that quantity's SI unit
  if (a.dimension && b.dimension && !alike(a.dimension, b.dimension))
    throw refuse(
      `${told(node.args?.[0], a.dimension)} and ${told(node.args?.[1], b.dimension)} cannot be ${isSum ? 'added' : 'compared'}.`,
    );
  const f = op === '+' ? (x: number, y: number) => x + y : op === '-' ? (x: number, y: number) => x - y : COMPARE[op];
  return { values: each(n, a.values, b.values, f), dimension: isSum ? (a.dimension ?? b.dimension) : null };
}

const tooDeep = () => refuse('The formula has too many parts inside each other.', 'Write it in several steps.');

/** A formula that was read: plain data, which crosses to other threads. */
export type ParsedFormula = { tree: unknown };

/** Read a formula; refuses what is none. */
export async function parseFormula(text: string): Promise<ParsedFormula> {
  if (text.length > 2000) throw refuse('The formula is longer than 2 000 characters.');
  // the part of it that knows plain numbers only: no more is read of a formula than its parts
  const { parse } = await import('mathjs/number');
  try {
    // “in” is an operator of units to the parser, and − a sign that people paste
    const node: MathNode = parse(text.replace(/−/g, '-').replace(/\bin\s*\(/g, 'inUnit('));
    return { tree: kept(node as unknown as Walked) };
  } catch (cause) {
    if (cause instanceof LithagonError) throw cause;
    if (cause instanceof RangeError) throw tooDeep();
    throw refuse(`The formula cannot be read: ${(cause as Error).message}.`, 'Mend it and try again.');
  }
}

/** What is walked of a parser's node. */
function kept(node: Walked): Walked {
  const each = (n: Walked | undefined) => (n ? kept(n) : undefined);
  const fn = node.type === 'FunctionNode' ? node.fn?.name : undefined;
  return {
    type: node.type,
    op: node.op,
    name: node.type === 'SymbolNode' ? node.name : undefined,
    value: node.value,
    args: node.args?.map((arg) => kept(arg)),
    content: each(node.content),
    fn: fn === undefined ? undefined : { name: fn === 'inUnit' ? 'in' : fn },
    condition: each(node.condition),
    trueExpr: each(node.trueExpr),
    falseExpr: each(node.falseExpr),
    text: String(node).replace(/\binUnit\(/g, 'in('),
  };
}

/**
 * Work a formula out over values of one length. None at all are enough to learn what it would measure.
 * @param unit what the result is to be in, where empty its SI unit; a unit of another dimension is refused
 */
export function workOutFormula(
  { tree }: ParsedFormula,
  variables: Map<string, Variable>,
  length: number,
  unit: string,
): { values: Float32Array; unit: string } {
  let value: Value;
  try {
    value = walk(tree as Walked, variables, length);
  } catch (cause) {
    if (cause instanceof RangeError) throw tooDeep();
    throw cause;
  }
  const si = known(value.dimension);
  const wanted = unit ? unitFacts(unit) : { dimension: value.dimension, toSi: 1 };
  if (value.dimension !== null && !alike(value.dimension, wanted.dimension))
    throw refuse(
      `The formula gives ${si.unit ? `${si.name ?? 'a result'} in ${si.unit}` : 'a plain number'}, and “${unit}” measures ${named(wanted.dimension)}.`,
      'Choose another unit or leave it empty, or write in(curve, "unit") where a plain value is meant.',
    );
  const scale = value.dimension === null ? 1 : 1 / wanted.toSi;
  return {
    values: Float32Array.from({ length }, (_, k) =>
      typeof value.values === 'number' ? value.values * scale : value.values[k] * scale,
    ),
    unit: unit || si.unit,
  };
}

/** Read a formula and work it out. */
export const evaluateFormula = async (
  text: string,
  variables: Map<string, Variable>,
  length: number,
  unit: string,
): Promise<{ values: Float32Array; unit: string }> => workOutFormula(await parseFormula(text), variables, length, unit);
