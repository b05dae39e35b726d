import { guarded } from './guard.ts';

/** A cell as CSV writes it: quoted where it must be; NaN and null are empty. */
function cell(value: unknown): string {
  if (value === null || value === undefined || (typeof value === 'number' && Number.isNaN(value))) return '';
  const text = String(value);
  const safe = typeof value === 'string' ? guarded(text) : text;
  return /[",;|\t\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** Rows as CSV (RFC 4180) under plain column names. */
export function csvText(columns: string[], rows: Iterable<unknown[]>): string {
  const lines = [columns.map(cell).join(',')];
  for (const row of rows) lines.push(row.map(cell).join(','));
  return `${lines.join('\n')}\n`;
}
