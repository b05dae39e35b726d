import type { EarthObject } from '../earth/objects.ts';
import type { Declarations, NameMatch, Question } from './report.ts';

/** A well's name with what differs between files taken out: case, blanks, hyphens, leading zeros. */
function bare(name: string): string {
  return name
    .toLowerCase()
    .replace(/^well\s+/, '')
    .replace(/[^a-z0-9]+/g, ' ')
    .trim()
    .split(' ')
    .map((part) => part.replace(/([a-z])0+(?=\d)/g, '$1').replace(/^0+(?=\d)/, ''))
    .join('');
}

/** Least number of letters to change, add or drop (Levenshtein), up to a most. */
function distance(a: string, b: string): number {
  let before = Array.from({ length: b.length + 1 }, (_, n) => n);
  for (let i = 1; i <= a.length; i++) {
    const now = [i];
    for (let j = 1; j <= b.length; j++)
      now.push(Math.min(before[j] + 1, now[j - 1] + 1, before[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1)));
    before = now;
  }
  return before[b.length];
}

/** The well that a name most likely means, or null; never one that it is already. */
export function nearestName(name: string, known: string[]): string | null {
  const own = bare(name.slice(0, 200));
  if (own === '') return null;
  const alike = known.filter((k) => k !== name && bare(k) === own);
  if (alike.length > 0) return alike[0];
  // digits tell wells apart: a name may differ in its letters only
  const digits = (text: string) => text.replace(/[^0-9]/g, '');
  const near = known.filter(
    (k) =>
      k !== name &&
      digits(bare(k)) === digits(own) &&
      digits(own) !== '' &&
      distance(bare(k), own) <= Math.max(1, own.length / 4),
  );
  return near.length === 1 ? near[0] : null;
}

/** Names of wells that things in a project belong to, heads first. */
export function wellNames(objects: EarthObject[]): string[] {
  const heads = objects.filter((o) => o.kind === 'well').map((o) => o.name);
  const others = objects.flatMap((o) => ('well' in o && o.well ? [o.well] : []));
  return [...new Set([...heads, ...others])];
}

/** Names of a file that are none of those known but nearly one: for a person to match, never merged unasked. */
export function matchNames(names: string[], known: string[]): NameMatch[] {
  return [...new Set(names)]
    .filter((name) => name !== '' && !known.includes(name))
    .map((name) => ({ name, suggested: nearestName(name, known), others: known }))
    .filter((match) => match.suggested !== null);
}

/** Words of file names that say what is in a file, not of which well it is. */
const WORDS =
  /(^|[\s_.-]+)(logs?|las|survey|deviation|dev|directional|checkshots?|cs|tops?|markers?|pressures?|core|facies|data|final)(?=[\s_.-]|$)/gi;

/** Whether a name stands in a text as a whole: QN-1 does not stand in “QN-10 survey”. */
function isIn(text: string, name: string): boolean {
  const at = name === '' ? -1 : text.indexOf(name);
  const touches = (a: string | undefined, b: string | undefined) => /^\d\d$/.test(`${a ?? ''}${b ?? ''}`);
  return at >= 0 && !touches(text[at - 1], name[0]) && !touches(name[name.length - 1], text[at + name.length]);
}

/**
 * What is asked where a file does not say of which well it is: known wells are suggested, and the one that the name of
 * the file has in it, or what is left of that name without words such as “survey”.
 */
export function wellQuestion(file: string, known: string[]): Question {
  const stem = file.replace(/\.[^.]*$/, '');
  const bareStem = bare(stem);
  const [held] = known.filter((name) => isIn(bareStem, bare(name))).sort((a, b) => b.length - a.length);
  const left = stem.replace(WORDS, '').trim();
  const value = held ?? (left || null);
  return {
    key: 'well',
    label: 'Of which well',
    typed: true,
    options: known.map((name) => ({ value: name, label: name })),
    hint: value ? { value, why: held ? `Its file name has ${held} in it.` : 'By its file name.' } : undefined,
  };
}

/** The well that a name in a file was said to mean. */
export function wellNamed(declare: Declarations, name: string): string {
  const key = `well.${name}`;
  return Object.hasOwn(declare, key) && declare[key] ? declare[key] : name;
}
