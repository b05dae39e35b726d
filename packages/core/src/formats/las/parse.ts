import { LithagonError } from '../../earth/errors.ts';
import { factor, unitNamed } from '../../earth/units.ts';

export interface LasCurve {
  mnemonic: string;
  unit: string;
  description: string;
  /** NaN where null. */
  values: Float64Array;
}

export interface LasFile {
  version: string;
  well: string;
  /** What the file says of the well besides its name, line by line. */
  header: LasFact[];
  /** Unit of depth as it is spelt. */
  depthUnit: string;
  /** Interval that the header says and the depths bear out, metres; that of most depths where it says none that they do. */
  stepM: number;
  /** Measured depth in metres, rising. */
  depthM: Float64Array;
  curves: LasCurve[];
  warnings: string[];
}

/** More curves than any tool records. */
const MOST_CURVES = 10_000;

/** A line of a header section. */
export interface LasFact {
  mnemonic: string;
  unit: string;
  value: string;
  description: string;
}
type Line = LasFact;

/** `MNEM.UNIT  value : description`, the line of every header section; one without its full stop has a name alone. */
function parseLine(text: string): Line | null {
  const dot = text.indexOf('.');
  const colon = text.lastIndexOf(':');
  if (dot < 0 || (colon >= 0 && dot > colon)) {
    const mnemonic = text
      .slice(0, colon < 0 ? undefined : colon)
      .trim()
      .split(/\s+/)[0];
    return mnemonic
      ? { mnemonic, unit: '', value: '', description: colon < 0 ? '' : text.slice(colon + 1).trim() }
      : null;
  }
  const rest = colon > dot ? text.slice(dot + 1, colon) : text.slice(dot + 1);
  const blank = rest.search(/\s/);
  return {
    mnemonic: text.slice(0, dot).trim(),
    unit: (blank < 0 ? rest : rest.slice(0, blank)).trim(),
    value: (blank < 0 ? '' : rest.slice(blank)).trim(),
    description: colon > dot ? text.slice(colon + 1).trim() : '',
  };
}

/** A section of the file: its title, and its lines with their numbers. */
interface Section {
  /** Upper case, without `~`: `VERSION INFORMATION`, `LOG_DATA[1] | LOG_DEFINITION[1]`. */
  title: string;
  lines: string[];
}

function sectionsOf(text: string): Section[] {
  const sections: Section[] = [];
  for (const raw of text.split(/\r\n|\n|\r/)) {
    // a tab at the end may stand for an empty cell
    const line = raw.replace(/^[ \r]+|[ \r]+$/g, '');
    if (line.trim() === '' || line.startsWith('#')) continue;
    if (line.startsWith('~')) sections.push({ title: line.slice(1).trim().toUpperCase(), lines: [] });
    else sections[sections.length - 1]?.lines.push(line);
  }
  return sections;
}

const parsed = (section: Section | undefined): Line[] =>
  (section?.lines ?? []).map(parseLine).filter((l): l is Line => l !== null);

/** What the words of a data line are set apart by. */
const SEPARATORS: Record<string, RegExp> = { COMMA: /\s*,\s*/, TAB: /\t/, SPACE: /\s+/ };

/**
 * Read LAS 1.2 or 2.0, wrapped or not, or the log sections of 3.0 (Canadian Well Logging Society): one set of curves for
 * each data section. Refuses, with a reason, what holds no data.
 */
export function parseLas(name: string, text: string): LasFile[] {
  const refuse = (why: string, fix: string): never => {
    throw new LithagonError('las', `${name} cannot be read as LAS: ${why}`, { object: name, fix });
  };
  const sections = sectionsOf(text);
  const one = (letter: string) => sections.find((s) => s.title.startsWith(letter));
  const versionLines = parsed(one('V'));
  const wellLines = parsed(one('W'));
  if (!one('V') && !one('W')) refuse('it has neither a ~V nor a ~W part.', 'Check that it is a LAS file.');
  const fact = (mnemonic: string) => wellLines.find((l) => l.mnemonic.toUpperCase() === mnemonic);
  const version = versionLines.find((l) => l.mnemonic.toUpperCase() === 'VERS')?.value ?? '2.0';
  const separators =
    SEPARATORS[versionLines.find((l) => l.mnemonic.toUpperCase() === 'DLM')?.value.toUpperCase() ?? ''] ?? /[\s,]+/;
  const wrapped = /^y/i.test(versionLines.find((l) => l.mnemonic.toUpperCase() === 'WRAP')?.value ?? 'NO');
  // in 1.2 the value of a well fact stands after the colon
  const textOf = (l: Line | undefined) =>
    l ? (version.startsWith('1') ? l.description || l.value : l.value || l.description) : '';
  const axis = ['STRT', 'STOP', 'STEP', 'NULL', 'WELL'];
  const header = wellLines
    .filter((line) => !axis.includes(line.mnemonic.toUpperCase()))
    .map((line) => ({
      ...line,
      value: textOf(line),
      description: version.startsWith('1') ? line.value : line.description,
    }));
  const common = { version, well: textOf(fact('WELL')), header };
  // 3.0 calls its sections by name and may have several of each
  const data = sections.filter((s) => /^(A\b|ASCII|LOG_DATA|RUN_DATA)/.test(s.title) || s.title === 'A');
  const defined = (section: Section) => {
    const named = section.title.split('|')[1]?.trim();
    const number = /\[\d+\]/.exec(section.title)?.[0] ?? '';
    return (
      sections.find((s) => named && s.title === named) ??
      sections.find((s) => s.title.startsWith(`LOG_DEFINITION${number}`)) ??
      sections.find((s) => s.title.startsWith('C'))
    );
  };
  if (data.length === 0 && !sections.some((s) => s.title.startsWith('C') || s.title.startsWith('LOG_DEFINITION')))
    refuse('it has no curve section, so nothing says what its columns are.', 'Ask for the file again.');
  if (data.length === 0) refuse('it has no data section (~A).', 'It was probably cut short: copy it again.');
  return data.map((section) => {
    const curveLines = parsed(defined(section));
    if (curveLines.length === 0)
      refuse('it has no curve section, so nothing says what its columns are.', 'Ask for the file again.');
    if (curveLines.length > MOST_CURVES)
      refuse(
        `it names ${curveLines.length} curves, and ${MOST_CURVES} can be read.`,
        'Check its curve section, or split the file.',
      );
    const rows = rowsOf(section.lines, curveLines, wrapped, separators);
    return { ...common, ...curvesOf(name, curveLines, rows.columns, fact, rows.warnings) };
  });
}

/** A cell as a number: exponents may be written as Fortran does, `1.5D+02`; an empty cell is NaN, and so is a text. */
function numberOf(word: string): number {
  if (word === '') return Number.NaN;
  const value = Number(word);
  return Number.isNaN(value)
    ? Number(word.replace(/^([+-]?[\d.]+)[dD]?([+-]\d+)$|^([+-]?[\d.]+)[dD](\d+)$/, '$1$3e$2$4'))
    : value;
}
/** Words for a value that is not there. */
const NOTHING = /^([-+]?nan|null|n\/?a|none|-|\*+|[-+]?(inf|1\.#\w+))?$/i;

/** Columns of a data section as numbers; text and empty cells are NaN, and text that is no word for nothing is named. */
function rowsOf(lines: string[], curves: Line[], wrapped: boolean, separators: RegExp) {
  const count = curves.length;
  const columns: number[][] = Array.from({ length: count }, () => []);
  const warnings: string[] = [];
  const texts = new Map<number, { count: number; first: string }>();
  const put = (c: number, word: string) => {
    const value = numberOf(word);
    columns[c].push(value);
    if (Number.isFinite(value) || NOTHING.test(word) || /\{S|\bS\d*\b/.test(curves[c].description)) return;
    const seen = texts.get(c);
    if (seen) seen.count++;
    else texts.set(c, { count: 1, first: `“${word.slice(0, 20)}” in row ${columns[c].length} of the data` });
  };
  if (wrapped) {
    const words = lines.flatMap((line) => line.split(/[\s,]+/).filter(Boolean));
    for (let n = 0; n + count <= words.length; n += count) for (let c = 0; c < count; c++) put(c, words[n + c]);
    if (words.length % count !== 0)
      warnings.push('The last depth has fewer values than there are curves; it was left out.');
  } else {
    let [short, long] = [0, 0];
    for (const line of lines) {
      const words = (separators === SEPARATORS.TAB ? line : line.trim()).split(separators);
      if (words.length < count) {
        short++;
        continue;
      }
      if (words.length > count) long++;
      for (let c = 0; c < count; c++) put(c, words[c].trim());
    }
    if (short > 0) warnings.push(`${short} lines have fewer values than there are curves; they were left out.`);
    if (long > 0)
      warnings.push(`${long} lines have more values than there are curves; what is beyond them was left out.`);
  }
  for (const [c, { count: many, first }] of texts)
    warnings.push(
      `${curves[c].mnemonic} has ${many} ${many === 1 ? 'cell that is no number' : 'cells that are no numbers'} (${many === 1 ? '' : 'first '}${first}): ${many === 1 ? 'it is' : 'they are'} taken as empty.`,
    );
  return { columns, warnings };
}

/** The step between most depths, as their median has it; over many steps that are alike, their mean. */
function usualStep(depthM: Float64Array): number {
  const steps = Float64Array.from({ length: depthM.length - 1 }, (_, n) => depthM[n + 1] - depthM[n]);
  const median = steps.slice().sort()[steps.length >> 1];
  // depths are rounded in files: one step is known less well than many
  const alike = steps.filter((step) => Math.abs(step - median) < 0.2 * median);
  return alike.reduce((sum, step) => sum + step, 0) / alike.length;
}

/** What the header says of the first and last depth, where that is not what stands in the data. */
function endsOf(
  depths: number[],
  order: number[],
  unit: string,
  fact: (mnemonic: string) => Line | undefined,
  step: number,
): string[] {
  const found = [depths[order[0]], depths[order[order.length - 1]]];
  const said = ['STRT', 'STOP'].map((key) => {
    const line = fact(key);
    const own = unitNamed(line?.unit ?? '');
    return line?.value && (!own || own === unitNamed(unit)) ? Number(line.value) : Number.NaN;
  });
  const [low, high] = [Math.min(...said), Math.max(...said)];
  if (Number.isNaN(low) || (Math.abs(low - found[0]) <= step && Math.abs(high - found[1]) <= step)) return [];
  return [
    `The header says depths from ${low} to ${high} ${unit}; the data run from ${found[0]} to ${found[1]}, which was taken.`,
  ];
}

/** Numbers that stand for nothing in many files, and that no tool measures. */
const USUAL_NULLS = new Set([-999.25, -9999, -9999.25, -99999]);

/** Values of a curve in the order of depth, NaN where null; a usual null that the header does not name is one, and is said. */
function withoutNulls(
  mnemonic: string,
  order: number[],
  column: number[],
  nullValue: number,
  warnings: string[],
): Float64Array {
  const unsaid = new Map<number, number>();
  const values = Float64Array.from(order, (n) => {
    const value = column[n];
    if (value === nullValue || !Number.isFinite(value)) return Number.NaN;
    if (!USUAL_NULLS.has(value)) return value;
    unsaid.set(value, (unsaid.get(value) ?? 0) + 1);
    return Number.NaN;
  });
  for (const [value, count] of unsaid)
    warnings.push(
      `${mnemonic} has ${count} ${count === 1 ? 'value' : 'values'} of ${value}, which stands for nothing in many files though the header says ${nullValue}: taken as empty.`,
    );
  return values;
}

/** Depths in metres, rising, and the curves over them. */
function curvesOf(
  name: string,
  curveLines: Line[],
  columns: number[][],
  fact: (mnemonic: string) => Line | undefined,
  warnings: string[],
): Pick<LasFile, 'depthM' | 'stepM' | 'depthUnit' | 'curves' | 'warnings'> {
  const refuse = (why: string, fix: string): never => {
    throw new LithagonError('las', `${name} cannot be read as LAS: ${why}`, { object: name, fix });
  };
  const nullValue = Number(fact('NULL')?.value ?? '-999.25');
  const rows = columns[0].length;
  if (rows < 2) refuse('its data section is empty.', 'Ask for the file again; nothing was loaded.');
  const depthUnit = unitNamed(curveLines[0].unit) ?? unitNamed(fact('STRT')?.unit ?? '') ?? 'm';
  const toMetres = factor(depthUnit, 'm');
  let order = Array.from({ length: rows }, (_, n) => n).filter((n) => Number.isFinite(columns[0][n]));
  if (order.length < 2) refuse('its depths are no numbers.', 'Ask for the file again; nothing was loaded.');
  const falling = columns[0][order[0]] > columns[0][order[order.length - 1]];
  if (falling) order = order.reverse();
  const lost = rows - order.length;
  if (lost > 0) warnings.push(`${lost} rows have no depth; they were left out.`);
  // a depth that stands twice is kept as it stood first
  const repeated: number[] = [];
  order = order.filter((n, k) => {
    const again = k > 0 && columns[0][n] === columns[0][order[k - 1]];
    if (again) repeated.push(columns[0][n]);
    return !again;
  });
  if (repeated.length > 0)
    warnings.push(
      `${repeated.length} ${repeated.length === 1 ? 'depth stands' : 'depths stand'} twice (${repeated.length === 1 ? '' : 'first '}${repeated[0]} ${depthUnit}); the first of each was kept.`,
    );
  if (order.length < 2) refuse('its depths are all one.', 'Ask for the file again; nothing was loaded.');
  const depthM = Float64Array.from(order, (n) => columns[0][n] * toMetres);
  for (let n = 1; n < depthM.length; n++)
    if (depthM[n] <= depthM[n - 1])
      refuse(
        `its depths do not rise steadily near ${(depthM[n] / toMetres).toFixed(2)} ${depthUnit}.`,
        'Sort or mend the file first.',
      );
  const usual = usualStep(depthM);
  const declared = Math.abs(Number(fact('STEP')?.value)) * toMetres;
  const says = Number.isFinite(declared) && declared > 0;
  // one that drifts off the depths by the end is not theirs, however near
  const agrees = says && Math.abs(declared - usual) * depthM.length <= 0.3 * usual;
  if (says && Math.abs(declared - usual) > 0.01 * usual)
    warnings.push(
      `The header says a step of ${(declared / toMetres).toFixed(4)} ${depthUnit}; the depths themselves step by ${(usual / toMetres).toFixed(4)} ${depthUnit}, which was used.`,
    );
  const stepM = agrees ? declared : usual;
  warnings.push(...endsOf(columns[0], order, curveLines[0].unit, fact, usual / toMetres));
  const seen: Record<string, number> = Object.create(null);
  const curves = curveLines.slice(1).map((line, c): LasCurve => {
    const times = (seen[line.mnemonic] ?? 0) + 1;
    seen[line.mnemonic] = times;
    return {
      mnemonic: times > 1 ? `${line.mnemonic}:${times}` : line.mnemonic,
      unit: line.unit,
      // 3.0 writes the kind of cell behind the description
      description: line.description.replace(/\s*\{[^}]*\}.*$/, ''),
      values: withoutNulls(line.mnemonic, order, columns[c + 1], nullValue, warnings),
    };
  });
  return { depthM, stepM, depthUnit: curveLines[0].unit || fact('STRT')?.unit || 'M', curves, warnings };
}
