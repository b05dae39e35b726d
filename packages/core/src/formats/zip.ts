import { type FileEntry, Reader, Uint8ArrayWriter, ZipReader } from '@zip.js/zip.js';
import type { ByteSource } from './source.ts';

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

/** A zip file read through a byte source. */
class SourceReader extends Reader<ByteSource> {
  private readonly source: ByteSource;
  constructor(source: ByteSource) {
    super(source);
    this.source = source;
    this.size = source.size;
  }
  override async readUint8Array(offset: number, length: number): Promise<Uint8Array> {
    return (await this.source.read(offset, length)).slice();
  }
}

/** The files in a zip file, one after the other; directories are left out. */
export async function* zipFiles(source: ByteSource): AsyncGenerator<FileEntry> {
  const reader = new ZipReader(new SourceReader(source), { useWebWorkers: false });
  for await (const entry of reader.getEntriesGenerator()) if (!entry.directory) yield entry;
}

/** The bytes of a file in a zip file. */
export const unzipped = (entry: FileEntry): Promise<Uint8Array> => entry.getData(new Uint8ArrayWriter());

/** Names of the first files in a zip file. */
export async function zipNames(source: ByteSource, most = 1000): Promise<string[]> {
  const names: string[] = [];
  for await (const { filename } of zipFiles(source)) {
    names.push(filename);
    if (names.length >= most) break;
  }
  return names;
}
