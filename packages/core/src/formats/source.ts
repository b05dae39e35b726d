import { LithagonError } from '../earth/errors.ts';
import { visible } from '../earth/text.ts';

/** Bytes to be read: a file on disk, a dropped file, or memory. */
export interface ByteSource {
  name: string;
  size: number;
  /** Tells its contents from what a file of the same name held at another time, where something does. */
  stamp?: string;
  /**
   * Bytes from `offset`; fewer than asked for only at the end. They may be put into `into`, which is at least that long,
   * and are then good until it is used again.
   */
  read(offset: number, length: number, into?: Uint8Array): Promise<Uint8Array>;
  /** Let go of what is held open, where something is. */
  close?(): Promise<void>;
}

export function memorySource(name: string, bytes: Uint8Array): ByteSource {
  return { name, size: bytes.length, read: async (offset, length) => bytes.subarray(offset, offset + length) };
}

/** A dropped or picked file in the browser. */
export function blobSource(name: string, blob: Blob): ByteSource {
  return {
    name,
    size: blob.size,
    stamp: blob instanceof File ? `${name} ${blob.size} ${blob.lastModified}` : undefined,
    read: async (offset, length) => new Uint8Array(await blob.slice(offset, offset + length).arrayBuffer()),
  };
}

/** A piece of a source. */
export interface Piece {
  source: ByteSource;
  offset: number;
  length: number;
}

/** Pieces that are being read while one is worked on. */
const AHEAD = 2;

/** Read pieces in turn, each while those before it are worked on; its bytes are good until the next is asked for. */
export async function* readAhead<P extends Piece>(pieces: P[]): AsyncGenerator<[bytes: Uint8Array, piece: P]> {
  const longest = pieces.reduce((most, p) => Math.max(most, p.length), 0);
  const buffers = Array.from({ length: Math.min(pieces.length, AHEAD + 1) }, () => new Uint8Array(longest));
  const begin = (n: number) => {
    const { source, offset, length } = pieces[n];
    const reading = source.read(offset, length, buffers[n % buffers.length]);
    // heard of when its turn comes, if it does
    reading.catch(() => undefined);
    return reading;
  };
  const reading = Array.from({ length: Math.min(pieces.length, AHEAD) }, (_, n) => begin(n));
  for (let n = 0; n < pieces.length; n++) {
    const bytes = (await reading.shift()) as Uint8Array;
    if (bytes.length < pieces[n].length)
      throw new LithagonError('file', `${pieces[n].source.name} ends before its last trace does.`, {
        object: pieces[n].source.name,
        fix: 'It may still be being written. Nothing was loaded; try again when it is whole.',
      });
    if (n + AHEAD < pieces.length) reading.push(begin(n + AHEAD));
    yield [bytes, pieces[n]];
  }
}

/** Most bytes of a file that is read as text, which is held in memory whole. */
const MOST_TEXT = 200e6;
/** Longest line of a table or log. */
const LONGEST_LINE = 4e6;

/**
 * The whole of a text file, with what cannot be seen in it made visible; one that is longer than can be held is refused,
 * never cut.
 * @param lines whether it is made of lines of a sensible length, as tables and logs are
 */
export async function readText(source: ByteSource, { most = MOST_TEXT, lines = true } = {}): Promise<string> {
  const refuse = (why: string, fix: string) =>
    new LithagonError('text', `${source.name} ${why}`, { object: source.name, fix });
  if (source.size > most)
    throw refuse(
      `has ${(source.size / 1e6).toFixed(0)} MB of text, and ${most / 1e6} MB can be read at once.`,
      'Split it into several files. Nothing of it was loaded.',
    );
  const bytes = await source.read(0, source.size);
  if (lines)
    for (let at = 0, line = 1; at < bytes.length; line++) {
      const end = bytes.indexOf(10, at);
      // a file may end its lines by returns alone
      const long = (end < 0 ? bytes.length : end) - at > LONGEST_LINE;
      if (long && longest(bytes.subarray(at, end < 0 ? undefined : end), 13) > LONGEST_LINE)
        throw refuse(
          `has a line (${line}) of more than ${LONGEST_LINE / 1e6} MB.`,
          'It is no table or log: check what it is.',
        );
      at = end < 0 ? bytes.length : end + 1;
    }
  return visible(decoded(bytes));
}

/** Letters of a text by its mark of byte order, or of UTF-8, or else of the code page that most old programs write. */
export function decoded(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** The longest run without a byte. */
function longest(bytes: Uint8Array, mark: number): number {
  let most = 0;
  for (let at = 0; at <= bytes.length; ) {
    const end = bytes.indexOf(mark, at);
    most = Math.max(most, (end < 0 ? bytes.length : end) - at);
    if (end < 0) break;
    at = end + 1;
  }
  return most;
}
