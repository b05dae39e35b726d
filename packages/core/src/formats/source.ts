/** Bytes to be read: a file on disk, a dropped file, or memory. */
export interface ByteSource {
  name: string;
  size: number;
  /** Bytes from `offset`; fewer than asked for only at the end. */
  read(offset: number, length: number): Promise<Uint8Array>;
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
    read: async (offset, length) => new Uint8Array(await blob.slice(offset, offset + length).arrayBuffer()),
  };
}

/** The whole of a text file, refusing one that is not text. */
export async function readText(source: ByteSource, mostBytes = 200e6): Promise<string> {
  const bytes = await source.read(0, Math.min(source.size, mostBytes));
  return new TextDecoder('utf-8').decode(bytes);
}
