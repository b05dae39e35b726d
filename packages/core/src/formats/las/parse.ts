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
  /** Other facts about the well by mnemonic. */
  facts: Record<string, string>;
  /** Measured depth in metres, rising. */
  depthM: Float64Array;
  curves: LasCurve[];
  warnings: string[];
}

/** More curves than any tool records. */
const MOST_CURVES = 10_000;

interface Line {
  mnemonic: string;
  unit: string;
  value: string;
  description: string;
}

/** `MNEM.UNIT  value : description`, the line of every header section. */
function parseLine(text: string): Line | null {
  const dot = text.indexOf('.');
  const colon = text.lastIndexOf(':');
  if (dot < 0) return null;
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
  const facts: Record<string, string> = Object.create(null);
  for (const line of [...wellLines, ...parsed(one('P'))]) facts[line.mnemonic.toUpperCase()] = textOf(line);
  const common = { version, well: textOf(fact('WELL')), facts };
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
    const rows = rowsOf(section.lines, curveLines.length, wrapped, separators);
    return { ...common, ...curvesOf(name, curveLines, rows.columns, fact, rows.warnings) };
  });
}

/** Columns of a data section as numbers; text and empty cells are NaN. */
function rowsOf(lines: string[], count: number, wrapped: boolean, separators: RegExp) {
  const columns: number[][] = Array.from({ length: count }, () => []);
  const warnings: string[] = [];
  const number = (word: string) => (word === '' ? Number.NaN : Number(word));
  if (wrapped) {
    const numbers = lines.flatMap((line) =>
      line
        .split(/[\s,]+/)
        .filter(Boolean)
        .map(Number),
    );
    for (let n = 0; n + count <= numbers.length; n += count)
      for (let c = 0; c < count; c++) columns[c].push(numbers[n + c]);
    if (numbers.length % count !== 0)
      warnings.push('The last depth has fewer values than there are curves; it was left out.');
    return { columns, warnings };
  }
  let short = 0;
  for (const line of lines) {
    const words = (separators === SEPARATORS.TAB ? line : line.trim()).split(separators);
    if (words.length < count) {
      short++;
      continue;
    }
    for (let c = 0; c < count; c++) columns[c].push(number(words[c].trim()));
  }
  if (short > 0) warnings.push(`${short} lines have fewer values than there are curves; they were left out.`);
  return { columns, warnings };
}

/** Depths in metres, rising, and the curves over them. */
function curvesOf(
  name: string,
  curveLines: Line[],
  columns: number[][],
  fact: (mnemonic: string) => Line | undefined,
  warnings: string[],
): Pick<LasFile, 'depthM' | 'curves' | 'warnings'> {
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
  const depthM = Float64Array.from(order, (n) => columns[0][n] * toMetres);
  for (let n = 1; n < depthM.length; n++)
    if (depthM[n] <= depthM[n - 1])
      refuse(
        `its depths do not rise steadily near ${(depthM[n] / toMetres).toFixed(2)} ${depthUnit}.`,
        'Sort or mend the file first.',
      );
  const declared = Number(fact('STEP')?.value) * toMetres;
  const measured = (depthM[depthM.length - 1] - depthM[0]) / (depthM.length - 1);
  if (Math.abs(Math.abs(declared) - measured) > 0.01 * measured && declared !== 0 && Number.isFinite(declared))
    warnings.push(
      `The header says a step of ${(Math.abs(declared) / toMetres).toFixed(4)} ${depthUnit}; the depths themselves step by ${(measured / toMetres).toFixed(4)} ${depthUnit}, which was used.`,
    );
  const seen: Record<string, number> = Object.create(null);
  const curves = curveLines.slice(1).map((line, c): LasCurve => {
    const times = (seen[line.mnemonic] ?? 0) + 1;
    seen[line.mnemonic] = times;
    return {
      mnemonic: times > 1 ? `${line.mnemonic}:${times}` : line.mnemonic,
      unit: line.unit,
      // 3.0 writes the kind of cell behind the description
      description: line.description.replace(/\s*\{[^}]*\}.*$/, ''),
      values: Float64Array.from(order, (n) => {
        const value = columns[c + 1][n];
        return value === nullValue || !Number.isFinite(value) ? Number.NaN : value;
      }),
    };
  });
  return { depthM, curves, warnings };
}
