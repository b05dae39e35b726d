import type { ByteSource } from '../../formats/source.ts';
import type { Around } from '../context.ts';
import type { Loaded, Loading } from '../loading.ts';
import type { Declarations, FileReport } from '../report.ts';

/** What tells files apart: how one begins. */
export interface Head {
  source: ByteSource;
  /** Its first bytes. */
  bytes: Uint8Array;
  view: DataView;
  /** The first four as a number; 0 where there are fewer. */
  mark: number;
  extension: string;
  /** The first bytes as text, where they look like one; null otherwise. */
  text: string | null;
}

/** What a format is looked at with. */
export interface FormatLooking {
  around: Around;
  beside: ByteSource[];
  signal?: AbortSignal;
  onProgress?: (part: number) => void;
}

/** Everything about reading one format: from bytes to a report, and to objects of a project. */
export interface Format {
  name: string;
  /**
   * How sure it is that a file is of it: 0 not, 1 by elimination, up to 9 by its name and 8 by a mark that no other has.
   */
  sniff(head: Head): number | Promise<number>;
  inspect(source: ByteSource, declare: Declarations, looking: FormatLooking): Promise<FileReport>;
  load(loading: Loading): Promise<Loaded>;
}

export const defineFormat = (format: Format): Format => format;
