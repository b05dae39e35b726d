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
