import { writeFileSync } from 'node:fs';
import type { LogFile } from '../wells/logs.ts';

/** A CSV file; numbers are written to a fixed number of decimals per column where one is given. */
export function writeCsv(
  path: string,
  columns: (string | [name: string, decimals: number])[],
  rows: (string | number | null)[][],
): void {
  const names = columns.map((c) => (typeof c === 'string' ? c : c[0]));
  const decimals = columns.map((c) => (typeof c === 'string' ? null : c[1]));
  const lines = [names.join(',')];
  for (const row of rows)
    lines.push(
      row
        .map((cell, n) => {
          if (cell === null || (typeof cell === 'number' && Number.isNaN(cell))) return '';
          const places = decimals[n];
          return typeof cell === 'number' && places !== null ? cell.toFixed(places) : String(cell);
        })
        .join(','),
    );
  writeFileSync(path, `${lines.join('\n')}\n`);
}

export function writeJson(path: string, value: unknown): void {
  writeFileSync(path, `${JSON.stringify(value, null, 1)}\n`);
}

/** LAS 2.0, unwrapped. */
export function writeLas(path: string, log: LogFile, facts: { field: string; kb: number }): void {
  const { depth, depthUnit, nullValue } = log;
  const n = depth.length;
  const step = (depth[n - 1] - depth[0]) / (n - 1);
  const line = (m: string, unit: string, value: string, what: string) =>
    `${m.padEnd(4)}.${unit.padEnd(6)} ${value.padStart(16)} : ${what}`;
  const lines = [
    '~Version information',
    line('VERS', '', '2.0', 'CWLS log ASCII standard, version 2.0'),
    line('WRAP', '', 'NO', 'One line per depth step'),
    '~Well information',
    line('STRT', depthUnit, depth[0].toFixed(4), 'First depth'),
    line('STOP', depthUnit, depth[n - 1].toFixed(4), 'Last depth'),
    line('STEP', depthUnit, step.toFixed(4), 'Step'),
    line('NULL', '', nullValue.toFixed(2), 'Null value'),
    line('COMP', '', 'Made-up data', 'Company'),
    line('WELL', '', log.well, 'Well'),
    line('FLD', '', facts.field, 'Field'),
    line('LOC', '', 'Osmund Shelf', 'Location'),
    line('SRVC', '', 'Made-up data', 'Service company'),
    line('DATE', '', '2026-05-04', 'Log date'),
    line('UWI', '', `QUILLON-${log.well}`, 'Unique well identifier'),
    '~Parameter information',
    line('EKB', 'M', facts.kb.toFixed(2), 'Elevation of kelly bushing above mean sea level'),
    line('BS', 'IN', '8.5', 'Bit size'),
    '~Curve information',
    line('DEPT', depthUnit, '', 'Measured depth below kelly bushing'),
    ...log.curves.map((c) => line(c.mnemonic, c.unit, '', c.description)),
    '~ASCII log data',
  ];
  for (let i = 0; i < n; i++) {
    let row = depth[i].toFixed(4).padStart(11);
    for (const c of log.curves) row += ` ${c.values[i].toFixed(4).padStart(11)}`;
    lines.push(row);
  }
  writeFileSync(path, `${lines.join('\n')}\n`);
}
