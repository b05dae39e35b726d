import { open, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { LithagonError } from '../earth/errors.ts';
import type { ByteSource } from './source.ts';

/** A file on disk, kept open for reading until `close`. */
export async function fileSource(path: string): Promise<ByteSource & { close(): Promise<void> }> {
  const name = basename(path);
  const facts = await stat(path).catch(() => null);
  if (!facts?.isFile())
    throw new LithagonError('file', `There is no file ${path}.`, { object: name, fix: 'Check its path.' });
  const file = await open(path, 'r');
  return {
    name,
    size: facts.size,
    async read(offset, length, into) {
      const wanted = Math.max(0, Math.min(length, facts.size - offset));
      const bytes = into ? into.subarray(0, wanted) : new Uint8Array(wanted);
      let done = 0;
      while (done < bytes.length) {
        const { bytesRead } = await file.read(bytes, done, bytes.length - done, offset + done);
        if (bytesRead === 0) break;
        done += bytesRead;
      }
      return bytes.subarray(0, done);
    },
    close: () => file.close(),
  };
}
