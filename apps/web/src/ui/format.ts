const UNITS = ['bytes', 'kB', 'MB', 'GB', 'TB'];

/** A number of bytes as people read it: “412 kB”, “1.6 GB”. */
export function formatBytes(bytes: number): string {
  let n = 0;
  let value = bytes;
  while (value >= 1000 && n < UNITS.length - 1) {
    value /= 1000;
    n++;
  }
  return `${value < 10 && n > 0 ? value.toFixed(1) : value.toFixed(0)} ${UNITS[n]}`;
}

/** A figure with a typographic minus, which nothing rounded to zero has. */
export function figure(value: number, places = 1): string {
  const text = value.toFixed(places);
  return Number(text) === 0 ? text.replace('-', '') : text.replace('-', '−');
}

/** A figure with its sign, whichever it is; nothing is neither. */
export function signed(value: number, places = 1): string {
  const text = figure(value, places);
  return value > 0 && Number(text) !== 0 ? `+${text}` : text;
}

/** How many of something: “1 row”, “12 rows”. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`;
}
