import { isEbcdicText, readCandidate } from './headers.ts';
import { FORMATS } from './samples.ts';

/** Part of the text header that has to be letters, figures or nothing. */
const TEXTUAL = 0.97;

/**
 * Whether the first 3600 bytes of a file are the headers of a SEG-Y file: a text of one alphabet, then a binary header
 * that names a sample format and a length of traces that the file has room for.
 */
export function looksLikeSegy(head: Uint8Array, size: number): boolean {
  if (head.length < 3600 || size < 3840) return false;
  const view = new DataView(head.buffer, head.byteOffset + 3200, 400);
  const [big, little] = [readCandidate(view, false), readCandidate(view, true)];
  const best = little.worth > big.worth ? little : big;
  const format = FORMATS[best.format];
  if (!format || best.worth < 5) return false;
  const trace = 240 + best.samples * format.bytes;
  if (best.samples > 0 && trace > size - 3600) return false;
  // the binary header of a text file is text, too
  if (head.subarray(3200, 3600).every((b) => b >= 9 && b !== 127)) return false;
  const text = head.subarray(0, 3200);
  const share = (fits: (b: number) => boolean) => text.reduce((n, b) => n + (fits(b) ? 1 : 0), 0) / text.length;
  const blank = share((b) => b === 0);
  if (blank > TEXTUAL) return best.worth >= 7;
  const textual =
    Math.max(
      share((b) => b === 0 || b === 10 || b === 13 || (b >= 32 && b < 127)),
      share((b) => b === 0 || isEbcdicText(b)),
    ) >= TEXTUAL;
  return textual || (best.worth >= 7 && best.samples > 0 && (size - 3600) % trace === 0);
}
