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

/** Read LAS 1.2 or 2.0, wrapped or not (Canadian Well Logging Society). Refuses, with a reason, what holds no data. */
export function parseLas(name: string, text: string): LasFile {
  const refuse = (why: string, fix: string): never => {
    throw new LithagonError('las', `${name} cannot be read as LAS: ${why}`, { object: name, fix });
  };
  const sections: Record<string, Line[]> = {};
  let section = '';
  const lines = text.split(/\r\n|\n|\r/);
  let dataFrom = -1;
  for (let n = 0; n < lines.length; n++) {
    const line = lines[n].trim();
    if (line === '' || line.startsWith('#')) continue;
    if (line.startsWith('~')) {
      section = line.charAt(1).toUpperCase();
      if (section === 'A') {
        dataFrom = n + 1;
        break;
      }
      continue;
    }
    const parsed = parseLine(line);
    if (parsed) {
      sections[section] ??= [];
      sections[section].push(parsed);
    }
  }
  if (!sections.V && !sections.W) refuse('it has neither a ~V nor a ~W part.', 'Check that it is a LAS file.');
  const curveLines =
    sections.C ?? refuse('it has no curve section, so nothing says what its columns are.', 'Ask for the file again.');
  if (dataFrom < 0) refuse('it has no data section (~A).', 'It was probably cut short: copy it again.');
  const fact = (mnemonic: string) => sections.W?.find((l) => l.mnemonic.toUpperCase() === mnemonic);
  const version = sections.V?.find((l) => l.mnemonic.toUpperCase() === 'VERS')?.value ?? '2.0';
  const wrapped = /^y/i.test(sections.V?.find((l) => l.mnemonic.toUpperCase() === 'WRAP')?.value ?? 'NO');
  const nullValue = Number(fact('NULL')?.value ?? '-999.25');
  // in 1.2 the value of a well fact stands after the colon
  const textOf = (l: Line | undefined) =>
    l ? (version.startsWith('1') ? l.description || l.value : l.value || l.description) : '';
  const well = textOf(fact('WELL'));
  const warnings: string[] = [];
  const count = curveLines.length;
  const columns: number[][] = curveLines.map(() => []);
  let short = 0;
  if (wrapped) {
    const numbers: number[] = [];
    for (let n = dataFrom; n < lines.length; n++)
      for (const word of lines[n].trim().split(/[\s,]+/)) if (word !== '') numbers.push(Number(word));
    for (let n = 0; n + count <= numbers.length; n += count)
      for (let c = 0; c < count; c++) columns[c].push(numbers[n + c]);
    if (numbers.length % count !== 0)
      warnings.push('The last depth has fewer values than there are curves; it was left out.');
  } else
    for (let n = dataFrom; n < lines.length; n++) {
      const line = lines[n].trim();
      if (line === '' || line.startsWith('#')) continue;
      const words = line.split(/[\s,]+/);
      if (words.length < count) {
        short++;
        continue;
      }
      for (let c = 0; c < count; c++) columns[c].push(Number(words[c]));
    }
  if (short > 0) warnings.push(`${short} lines have fewer values than there are curves; they were left out.`);
  const rows = columns[0].length;
  if (rows < 2) refuse('its data section is empty.', 'Ask for the file again; nothing was loaded.');
  const depthUnit = unitNamed(curveLines[0].unit) ?? unitNamed(fact('STRT')?.unit ?? '') ?? 'm';
  const toMetres = factor(depthUnit, 'm');
  let order = Array.from({ length: rows }, (_, n) => n).filter((n) => Number.isFinite(columns[0][n]));
  const falling = columns[0][order[0]] > columns[0][order[order.length - 1]];
  if (falling) order = order.reverse();
  const depthM = Float64Array.from(order, (n) => columns[0][n] * toMetres);
  for (let n = 1; n < depthM.length; n++)
    if (depthM[n] <= depthM[n - 1])
      refuse(`its depths do not rise steadily near ${depthM[n].toFixed(2)} m.`, 'Sort or mend the file first.');
  const declared = Number(fact('STEP')?.value) * toMetres;
  const measured = (depthM[depthM.length - 1] - depthM[0]) / (depthM.length - 1);
  if (Math.abs(Math.abs(declared) - measured) > 0.01 * measured && declared !== 0 && Number.isFinite(declared))
    warnings.push(
      `The header says a step of ${Math.abs(declared).toFixed(4)} m; the depths themselves step by ${measured.toFixed(4)} m, which was used.`,
    );
  const seen: Record<string, number> = Object.create(null);
  const curves = curveLines.slice(1).map((line, c): LasCurve => {
    const times = (seen[line.mnemonic] ?? 0) + 1;
    seen[line.mnemonic] = times;
    return {
      mnemonic: times > 1 ? `${line.mnemonic}:${times}` : line.mnemonic,
      unit: line.unit,
      description: line.description,
      values: Float64Array.from(order, (n) => {
        const value = columns[c + 1][n];
        return value === nullValue || !Number.isFinite(value) ? Number.NaN : value;
      }),
    };
  });
  const facts: Record<string, string> = Object.create(null);
  for (const line of [...(sections.W ?? []), ...(sections.P ?? [])]) facts[line.mnemonic.toUpperCase()] = textOf(line);
  return { version, well, facts, depthM, curves, warnings };
}
