import { asLithagonError } from '../earth/errors.ts';
import type { ByteSource } from '../formats/source.ts';
import { type Around, NOTHING_AROUND } from './context.ts';
import { type Placement, placementFor, projectSystemQuestion } from './coordinates.ts';
import type { Declarations, FileFormat, FileReport } from './report.ts';

/** What a file is looked at with besides its bytes. */
export interface Looking {
  around?: Around;
  /** Further parts of the same volume, or companions of a shapefile. */
  beside?: ByteSource[];
  signal?: AbortSignal;
  onProgress?: (part: number) => void;
}

export function blank(source: ByteSource, format: FileFormat, takenFor: string): FileReport {
  return {
    file: source.name,
    bytes: source.size,
    format,
    takenFor,
    facts: [],
    problems: [],
    questions: [],
    sketch: { lines: [], points: [] },
  };
}

export function refused(report: FileReport, cause: unknown): FileReport {
  const error = asLithagonError(cause);
  return { ...report, refused: { code: error.code, message: error.message, object: error.object, fix: error.fix } };
}

/** Bring the sketch of a file into the project's system, where that is known, and say what was done. */
export async function placeSketch(
  report: FileReport,
  declare: Declarations,
  around: Around,
  says: { crs?: string; metres?: number } = {},
): Promise<FileReport> {
  const { frame, crsTable } = around;
  // by itself a file keeps its own numbers
  if (!frame && (around === NOTHING_AROUND || (!says.crs && !declare.crs))) return report;
  const [first] = report.sketch.lines.flat().concat(report.sketch.points.map(({ x, y }) => [x, y]));
  const placement = await placementFor(declare, frame, crsTable, { ...says, at: first });
  report.problems.push(...placement.notes);
  return sketched(report, placement, around);
}

/** The report with its sketch on the map, or with the question which system the project is to be in. */
export async function sketched(report: FileReport, placement: Placement, { crsTable }: Around): Promise<FileReport> {
  const { lines, points } = report.sketch;
  if (placement.waits) {
    const places = [...lines.flat(), ...points.map(({ x, y }): [number, number] => [x, y])];
    report.questions.push(await projectSystemQuestion(placement.waits, places, crsTable));
    return { ...report, sketch: { lines: [], points: [] } };
  }
  report.sketch = {
    lines: lines.map((line) => line.map(([x, y]) => placement.toMap(x, y))),
    points: points.map((point) => {
      const [x, y] = placement.toMap(point.x, point.y);
      return { ...point, x, y };
    }),
  };
  return report;
}
