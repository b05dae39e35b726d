import { LithagonError } from '../earth/errors.ts';

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

/** The whole of a text file, refusing one that is not text. */
export async function readText(source: ByteSource, mostBytes = 200e6): Promise<string> {
  const bytes = await source.read(0, Math.min(source.size, mostBytes));
  return new TextDecoder('utf-8').decode(bytes);
}
