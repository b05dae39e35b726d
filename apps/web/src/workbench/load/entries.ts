import { type Declarations, type EarthObject, type FileReport, wellNames } from '@lithagon/core';

/** A dropped file that the load sheet looks at, with what belongs to it. */
export interface Entry {
  file: File;
  /** Further parts of the same volume, or companions of a shapefile. */
  beside: File[];
  report: FileReport | null;
  declare: Declarations;
  wanted: boolean;
}

const stem = (name: string) => name.replace(/\.[^.]*$/, '').toLowerCase();
const COMPANION = /\.(dbf|prj|shx|cpg|sbn|sbx|qix)$/i;

/** Entries for dropped files; what belongs to a shapefile goes with it. */
export function entriesOf(files: File[]): Entry[] {
  const shapes = files.filter((f) => /\.shp$/i.test(f.name));
  const companion = (f: File) => COMPANION.test(f.name) && shapes.some((s) => stem(s.name) === stem(f.name));
  return files
    .filter((f) => !companion(f))
    .map((file) => ({
      file,
      beside: files.filter((f) => companion(f) && stem(f.name) === stem(file.name)),
      report: null,
      declare: {},
      wanted: true,
    }));
}

/** Files that may be parts of the same volume: SEG-Y of traces of one kind that are no part of another already. */
export function possibleParts(entry: Entry, entries: Entry[]): Entry[] {
  const { report } = entry;
  if (!report?.segy?.whole) return [];
  return entries.filter(
    (e) => e !== entry && e.report?.segy?.whole && !e.report.refused && e.report.segy.kind === report.segy?.kind,
  );
}

/** Whether two files look like parts: their lines do not overlap in one direction and agree in the other. */
export function looksLikeParts(a: FileReport, b: FileReport): boolean {
  const [p, q] = [a.segy?.whole, b.segy?.whole];
  if (!p || !q) return false;
  const same = (x: [number, number], y: [number, number]) => x[0] === y[0] && x[1] === y[1];
  const apart = (x: [number, number], y: [number, number]) => x[1] < y[0] || y[1] < x[0];
  return (
    (same(p.crosslines, q.crosslines) && apart(p.inlines, q.inlines)) ||
    (same(p.inlines, q.inlines) && apart(p.crosslines, q.crosslines))
  );
}

/** Names of wells that a file's names are held against: those of the project, then heads among the other files. */
export function knownNames(entry: Entry, entries: Entry[], objects: EarthObject[]): string[] {
  const heads = entries.filter((e) => e !== entry && e.report?.table?.kind === 'well heads' && !e.report.refused);
  return [...new Set([...wellNames(objects), ...heads.flatMap((e) => e.report?.wells ?? [])])];
}

/** What still has to be answered before a file can be loaded. */
export function unanswered(report: FileReport, declare: Declarations): string[] {
  return report.questions.filter((q) => !q.optional && !declare[q.key]).map((q) => q.label.toLowerCase());
}

/**
 * The other files for which an answer holds, once it is given for all: those that ask the same, have no answer yet, and
 * do not look like something else. A velocity is not made an amplitude because the stacks beside it are.
 */
export function alsoAnswered(entry: Entry, entries: Entry[], key: string, value: string): Entry[] {
  return entries.filter((e) => {
    if (e === entry || !e.report || e.declare[key]) return false;
    // asked of amplitudes only, and not by the file
    if (key === 'polarity') return e.report.segy !== undefined && e.declare.quantity === 'amplitude';
    const question = e.report.questions.find((q) => q.key === key);
    return question !== undefined && (!question.hint || question.hint.value === value);
  });
}

const MEMORY = 'lithagon-columns';
/** Declarations that say how a table is laid out, and not what this file is called. */
const LAYOUT = /^(kind|column\.|unit\.|reference$)/;

type Memory = Record<string, Declarations>;
const memory = (): Memory => {
  try {
    return JSON.parse(localStorage.getItem(MEMORY) ?? '{}') as Memory;
  } catch {
    return {};
  }
};

/** Tables are of one shape when their columns are called the same; what was said of one holds for the next. */
const shapeOf = (report: FileReport) => report.table?.columns.map((c) => c.column).join('\u0001') ?? '';

/** Declarations remembered from an earlier file of the same shape, or null. */
export function recall(report: FileReport): Declarations | null {
  const shape = shapeOf(report);
  const all = memory();
  return shape && Object.hasOwn(all, shape) ? all[shape] : null;
}

export function remember(report: FileReport, declare: Declarations): void {
  const shape = shapeOf(report);
  const layout = Object.fromEntries(Object.entries(declare).filter(([key]) => LAYOUT.test(key)));
  if (!shape || Object.keys(layout).length === 0) return;
  localStorage.setItem(MEMORY, JSON.stringify({ ...memory(), [shape]: layout }));
}
