import { FUNCTION_NAMES } from './formula.ts';

/** A word, number or text of a formula, and where it stands. */
export interface FormulaPart {
  is: 'name' | 'function' | 'number' | 'text' | 'sign';
  from: number;
  to: number;
  text: string;
}

const PARTS = /"[^"]*"?|\d+\.?\d*(?:[eE][-+]?\d+)?|\.\d+(?:[eE][-+]?\d+)?|[A-Za-z_]\w*|\S/g;

/** A formula in its parts, as one reads it; a name before an opening bracket is a function. */
export function partsOfFormula(text: string): FormulaPart[] {
  return [...text.matchAll(PARTS)].map(({ 0: part, index }) => ({
    is: part.startsWith('"')
      ? 'text'
      : /^[\d.]/.test(part) && part !== '.'
        ? 'number'
        : !/^[A-Za-z_]/.test(part)
          ? 'sign'
          : /^\s*\(/.test(text.slice(index + part.length))
            ? 'function'
            : 'name',
    from: index,
    to: index + part.length,
    text: part,
  }));
}

export interface FormulaTrouble {
  from: number;
  to: number;
  says: string;
}

/**
 * What can be said of a formula before anything is worked out, each at its place: names that nothing has, functions that
 * there are not, brackets without their other half.
 * @param names what may be named
 */
export function troublesOfFormula(text: string, names: readonly string[]): FormulaTrouble[] {
  const out: FormulaTrouble[] = [];
  const open: FormulaPart[] = [];
  for (const part of partsOfFormula(text)) {
    const at = { from: part.from, to: part.to };
    if (part.is === 'name' && part.text !== 'pi' && !names.includes(part.text))
      out.push({ ...at, says: `There is no curve “${part.text}”.` });
    if (part.is === 'function' && !FUNCTION_NAMES.includes(part.text))
      out.push({ ...at, says: `There is no function “${part.text}”: there are ${FUNCTION_NAMES.join(', ')}.` });
    if (part.is === 'text' && (part.text.length < 2 || !part.text.endsWith('"')))
      out.push({ ...at, says: 'The text has no closing quotation mark.' });
    if (part.text === '(') open.push(part);
    if (part.text === ')' && !open.pop()) out.push({ ...at, says: 'Nothing was opened that this closes.' });
  }
  for (const part of open) out.push({ from: part.from, to: part.to, says: 'This is not closed.' });
  return out.sort((a, b) => a.from - b.from);
}
