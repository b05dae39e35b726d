import type { EarthObject, MadeBy } from '../earth/objects.ts';
import { canonicalJson, hasher } from '../numerics/hash.ts';

export const ENGINE = 'lithagon 0.1.0';

/** A new id for an object of a kind. */
export function newId(kind: string): string {
  return `${kind.replace(/\s+/g, '-')}-${crypto.randomUUID().slice(0, 13).replace('-', '')}`;
}

/** Revision of something loaded: its content and what was declared of it. */
export function loadedRevision(content: string, declared: unknown): string {
  return hasher().text(content).text(canonicalJson(declared)).digest();
}

/** Revision of something computed: step, version, parameters, revisions of inputs. */
export function computedRevision(
  step: string,
  version: number,
  params: unknown,
  inputRevisions: unknown,
  output: string,
): string {
  return hasher()
    .text(canonicalJson([step, version, params, inputRevisions, output]))
    .digest();
}

export function madeByLoading(
  file: string,
  declare: Record<string, string>,
  started: Date,
  warnings: string[],
): MadeBy {
  return {
    step: 'data.load',
    version: 1,
    params: declare,
    inputs: {},
    file,
    started: started.toISOString(),
    tookMs: Date.now() - started.getTime(),
    warnings,
    engine: ENGINE,
  };
}

/** A name not yet taken among objects of the same kind: “Full stack”, “Full stack 2”. */
export function freeName(objects: EarthObject[], kind: string, wanted: string): string {
  return freeAmong(new Set(objects.filter((o) => o.kind === kind).map((o) => o.name)), wanted);
}

/** A name that is not among those taken, numbered where it must be. */
export function freeAmong(taken: Set<string>, wanted: string): string {
  if (!taken.has(wanted)) return wanted;
  for (let n = 2; ; n++) if (!taken.has(`${wanted} ${n}`)) return `${wanted} ${n}`;
}
