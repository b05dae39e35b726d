import type { ByteSource } from '../formats/source.ts';
import { NOTHING_AROUND } from './context.ts';
import { farFrom } from './far.ts';
import { formatNamed } from './formats/index.ts';
import { blank, type Looking, refused } from './inspecting.ts';
import { recognise, unknownFormat } from './recognise.ts';
import type { Declarations, FileFormat, FileReport } from './report.ts';

export type { Looking } from './inspecting.ts';

/** Look into a file and say what it is, what it holds, and what only a person can say. Never throws for a bad file. */
export async function inspectFile(
  source: ByteSource,
  declare: Declarations = {},
  { around = NOTHING_AROUND, beside = [], signal, onProgress }: Looking = {},
): Promise<FileReport> {
  let format: FileFormat = 'unknown';
  try {
    format = await recognise(source);
    const known = formatNamed(format);
    if (!known) throw await unknownFormat(source);
    const report = await known.inspect(source, declare, { around, beside, signal, onProgress });
    const far = farFrom(report.sketch, around);
    if (far) report.problems.push(far);
    return report;
  } catch (cause) {
    if (signal?.aborted) throw cause;
    return refused(
      blank(source, format, format === 'unknown' ? 'Not recognised' : `${format}, which cannot be read`),
      cause,
    );
  }
}
