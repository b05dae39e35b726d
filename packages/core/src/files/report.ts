import type { ErrorFacts } from '../earth/errors.ts';
import type { SegyHeaders } from '../formats/segy/headers.ts';
import type { RankedLinePositions } from '../formats/segy/line.ts';
import type { RankedPositions } from '../formats/segy/positions.ts';

/** What no file can answer and a person must say. */
export interface Question {
  key: string;
  label: string;
  options: { value: string; label: string }[];
  /** What the file hints at, for a person to confirm; never taken without them. Null where it hints at no one answer. */
  hint?: { value: string | null; why: string };
  /** Whether the answer is typed; the options are then suggestions. */
  typed?: boolean;
  /** Whether the file can be loaded without an answer. */
  optional?: boolean;
}

/** Lines and points in map coordinates, to be drawn small. */
export interface Sketch {
  lines: [number, number][][];
  points: { x: number; y: number; label: string }[];
}

/** Name of a format that is read, or “unknown”. */
export type FileFormat = string;

/** A run of line numbers. */
export interface LineNumbers {
  first: number;
  last: number;
  step: number;
  count: number;
}

/** What is known of a SEG-Y file in numbers, for programs; null where the file does not say. */
export interface SegyNumbers {
  revision: string;
  /** Code of the sample format (SEG-Y rev 2, table 2). */
  format: number;
  byteOrder: 'big' | 'little';
  textEncoding: 'EBCDIC' | 'ASCII';
  traces: number;
  samples: number;
  /** ms, or m where it is in depth. */
  interval: number | null;
  start: number | null;
  inlines: LineNumbers | null;
  crosslines: LineNumbers | null;
  bins: number | null;
  live: number | null;
  missing: number | null;
  duplicate: number | null;
  /** Metres from the middle of a bin to the next, along inlines and crosslines. */
  binM: [number, number] | null;
  /** Distance of coordinates from the fitted grid, metres. */
  residualM: { rms: number; max: number } | null;
}

/** What a SEG-Y file shows of itself before it is loaded. */
export interface SegyReport {
  /** Ranked header positions of a 3D volume, or of 2D lines. */
  positions?: RankedPositions[];
  linePositions?: RankedLinePositions[];
  text: string[];
  binary: SegyHeaders['binary'];
  /** A section of samples from the middle, `[trace][sample]`. */
  sample?: { traces: number; samples: number; data: Float32Array; clip: number; stepMs: number };
  /** Counts of samples of that section between `from` and `to`. */
  histogram?: { from: number; to: number; counts: number[] };
  /** How far (m) a spread of traces lie from the fitted grid: inline and crossline, then metres. */
  residuals?: [inline: number, crossline: number, metres: number][];
  /** Greatest error that 16 bits would make, as far as the sample shows, and the rms amplitude beside it. */
  compact?: { error: number; rms: number; saves: number };
  /** What can be asked for of a volume: first and last line numbers and samples. */
  whole?: { inlines: [number, number]; crosslines: [number, number]; window: [number, number] };
  numbers: SegyNumbers;
  /** Samples and interval of a trace: files that agree may be parts of one volume. */
  kind: string;
}

/** A column of a table and what it was taken for. */
export interface ColumnReport {
  column: string;
  /** Key of the column it was taken for, or null. */
  key: string | null;
  unit: string | null;
  /** The first cells below the heading. */
  cells: string[];
}

/** What a table was taken for, to be looked at and corrected. */
export interface TableReport {
  kind: string;
  title: string;
  kinds: { kind: string; title: string }[];
  columns: ColumnReport[];
  /** Columns that the kind of table may have. */
  keys: { key: string; label: string; unit: string | null; needed: boolean }[];
}

/** A well's name in a file that almost agrees with one in the project. */
export interface NameMatch {
  name: string;
  suggested: string | null;
  others: string[];
}

/** What a reader made of a file before anything is loaded. */
export interface FileReport {
  file: string;
  bytes: number;
  format: FileFormat;
  /** What it was taken for: “3D seismic volume”, “Tops”. */
  takenFor: string;
  facts: { label: string; value: string }[];
  problems: string[];
  questions: Question[];
  sketch: Sketch;
  segy?: SegyReport;
  table?: TableReport;
  /** Names of wells that it has something of. */
  wells?: string[];
  /** Why it cannot be loaded. */
  refused?: { code: string; message: string } & ErrorFacts;
}

/** What people say of a file, by key: `domain`, `quantity`, `unit`, `polarity`, `name`, `crs`, `byte.inline` … */
export type Declarations = Record<string, string>;
