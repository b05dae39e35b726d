import type { ErrorFacts } from '../earth/errors.ts';
import type { RankedPositions } from '../formats/segy/positions.ts';

/** What no file can answer and a person must say. */
export interface Question {
  key: 'domain' | 'quantity' | 'unit' | 'polarity';
  label: string;
  options: { value: string; label: string }[];
  /** What the samples hint at, for a person to confirm; never taken without them. */
  hint?: { value: string; why: string };
}

/** Lines and points in map coordinates, to be drawn small. */
export interface Sketch {
  lines: [number, number][][];
  points: { x: number; y: number; label: string }[];
}

/** What a reader made of a file before anything is loaded. */
export interface FileReport {
  file: string;
  bytes: number;
  format: 'SEG-Y' | 'LAS' | 'CSV' | 'GeoJSON' | 'unknown';
  /** What it was taken for: “3D seismic volume”, “Tops”. */
  takenFor: string;
  facts: { label: string; value: string }[];
  problems: string[];
  questions: Question[];
  sketch: Sketch;
  /** Ranked header positions of a SEG-Y file. */
  positions?: RankedPositions[];
  /** Text header of a SEG-Y file. */
  text?: string[];
  /** A section of samples from the middle, `[trace][sample]`. */
  sample?: { traces: number; samples: number; data: Float32Array; clip: number; stepMs: number };
  /** Why it cannot be loaded. */
  refused?: { code: string; message: string } & ErrorFacts;
}

export type Declarations = Record<string, string>;
