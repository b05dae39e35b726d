import { visible } from '@lithagon/core/text';

/** Where a command writes: results to `out`, progress and refusals to `err`. */
export interface Output {
  out(text: string): void;
  err(text: string): void;
  /** Whether progress may overwrite its line. */
  interactive: boolean;
}

export const terminal: Output = {
  // names may hold what a terminal obeys
  out: (text) => void process.stdout.write(`${visible(text)}\n`),
  err: (text) => void process.stderr.write(`${visible(text)}\n`),
  interactive: process.stderr.isTTY === true,
};

// a reader that has seen enough, such as head, is no failure
process.stdout.on('error', (cause: NodeJS.ErrnoException) => {
  if (cause.code === 'EPIPE') process.exit(0);
  throw cause;
});

/** A line of progress that is rewritten on a terminal and printed at whole steps elsewhere. */
export function progressLine(output: Output): (part: number, what: string) => void {
  let last = '';
  return (part, what) => {
    const text = `${what} ${(100 * part).toFixed(0)} %`;
    if (text === last) return;
    // whoever runs this as a child of theirs is told as well
    process.send?.({ part, what });
    if (output.interactive) process.stderr.write(`\r\x1b[K${text}${part >= 1 ? '\n' : ''}`);
    else if (!last.startsWith(what)) output.err(`${what} …`);
    last = text;
  };
}

/** `key=value` pairs as given on the command line. */
export function pairs(list: string[]): Record<string, string> {
  const out: Record<string, string> = {};
  for (const text of list) {
    const at = text.indexOf('=');
    if (at < 1) throw new UsageError(`“${text}” should read key=value.`);
    out[text.slice(0, at)] = text.slice(at + 1);
  }
  return out;
}

/** A call that makes no sense: exit 2. */
export class UsageError extends Error {}

/** A parameter value: a number, true, false or JSON where it reads as one, else text. */
export function parameterValue(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

/** Columns padded to line up. */
export function table(rows: string[][]): string {
  const widths = rows[0]?.map((_, c) => Math.max(...rows.map((row) => row[c].length))) ?? [];
  return rows
    .map((row) =>
      row
        .map((cell, c) => cell.padEnd(widths[c]))
        .join('  ')
        .trimEnd(),
    )
    .join('\n');
}
