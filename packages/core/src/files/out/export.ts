import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, Frame } from '../../earth/objects.ts';
import { METRES } from '../../earth/transform.ts';
import { kindOf } from '../../kinds/index.ts';
import { stepOf } from '../../steps/define.ts';
import { shownParams } from '../../steps/params.ts';
import type { Store } from '../../storage/store.ts';
import type { Out, OutOptions } from './out.ts';

/** Formats that an object can leave in, by extension. */
export function exportFormats(object: EarthObject): Record<string, string> {
  return Object.fromEntries(Object.entries(kindOf(object).formats).map(([extension, { title }]) => [extension, title]));
}

/** The extension of a file's name as `exportFormats` calls it: `zarr.zip`, `csv`. */
export function extensionOf(file: string): string {
  return /\.(zarr\.zip|[^.]+)$/i.exec(file)?.[1].toLowerCase() ?? '';
}

/**
 * An object in an open format, part by part, so that no volume is held whole.
 * @param extension without its dot: one of `exportFormats(object)`
 */
export async function* exportParts(
  store: Store,
  object: EarthObject,
  extension: string,
  frame: Frame | null,
  options: OutOptions = {},
  signal?: AbortSignal,
): AsyncGenerator<Uint8Array> {
  const { formats } = kindOf(object);
  if (!Object.hasOwn(formats, extension)) {
    const can = Object.keys(formats);
    throw new LithagonError(
      'export',
      `${object.name} is a ${object.kind}, which cannot be written as “.${extension}”.`,
      {
        object: object.name,
        fix: can.length > 0 ? `It can be written as ${can.map((e) => `.${e}`).join(' or ')}.` : 'Nothing was written.',
      },
    );
  }
  const unit = frame?.unit ?? 'm';
  const told: Out['told'] = ({ step, params }) => ({
    step: stepOf(step)?.title ?? step,
    params: shownParams(step, params),
  });
  const out: Out = { store, frame, options, map: { unit, scale: 1 / METRES[unit] }, told, signal };
  const written = formats[extension].write(out, object);
  if (Symbol.asyncIterator in written) {
    yield* written;
    return;
  }
  const whole = await written;
  if (typeof whole === 'string') yield new TextEncoder().encode(whole);
  else if (Array.isArray(whole)) yield* whole;
  else yield whole;
}

/** The whole of an exported object, for those that are small. */
export async function exportObject(
  store: Store,
  object: EarthObject,
  extension: string,
  frame: Frame | null,
  options: OutOptions = {},
): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  for await (const part of exportParts(store, object, extension, frame, options)) parts.push(part);
  if (parts.length === 1) return parts[0];
  const whole = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
