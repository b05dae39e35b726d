/** What the end of a zip file says of its directory, read without trusting it. */
export interface DirectorySize {
  entries: number;
  /** Bytes of the directory. */
  bytes: number;
}

const END = 0x06054b50;
const END_64 = 0x06064b50;
const LOCATOR_64 = 0x07064b50;

/**
 * How many entries a zip file says that it has, and how long their list is: what a reader would take into memory first.
 * @returns null where there is no end of a directory: no zip file, or one that was cut short
 * @see APPNOTE.TXT 6.3, sections 4.3.14 to 4.3.16
 */
export async function directorySize(zip: Blob): Promise<DirectorySize | null> {
  const from = Math.max(0, zip.size - 65_557);
  const view = new DataView(await zip.slice(from).arrayBuffer());
  let at = view.byteLength - 22;
  while (at >= 0 && view.getUint32(at, true) !== END) at--;
  if (at < 0) return null;
  const small = { entries: view.getUint16(at + 10, true), bytes: view.getUint32(at + 12, true) };
  if (small.entries !== 0xffff && small.bytes !== 0xffffffff) return small;
  const locator = at - 20;
  if (locator < 0 || view.getUint32(locator, true) !== LOCATOR_64) return small;
  const place = Number(view.getBigUint64(locator + 8, true));
  const record = new DataView(await zip.slice(place, place + 56).arrayBuffer());
  if (record.byteLength < 56 || record.getUint32(0, true) !== END_64) return null;
  return { entries: Number(record.getBigUint64(32, true)), bytes: Number(record.getBigUint64(40, true)) };
}
