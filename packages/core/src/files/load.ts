import type { ByteSource } from '../formats/source.ts';
import { PROJECT_SYSTEM, placementFor, refuseWaiting } from './coordinates.ts';
import { farFrom } from './far.ts';
import { formatNamed } from './formats/index.ts';
import type { LoadContext, Loaded, Loading } from './loading.ts';
import { recognise, unknownFormat } from './recognise.ts';
import type { Declarations } from './report.ts';
import { sketchOfObjects } from './sketch.ts';

export type { LoadContext, Loaded, Loading } from './loading.ts';

/**
 * Load one file into a project, in one transaction: nothing of it is visible before the end, and nothing remains of
 * a load that fails or is cancelled.
 * @param beside further parts of the same volume, or companions of a shapefile
 */
export async function loadFile(
  source: ByteSource,
  declare: Declarations,
  context: LoadContext,
  beside: ByteSource[] = [],
): Promise<Loaded> {
  const { store } = context;
  const format = await recognise(source);
  const facts = await store.facts();
  let { frame } = facts;
  const ids: string[] = [];
  const loading: Loading = {
    ...context,
    source,
    beside,
    declare,
    started: new Date(),
    ids,
    objects: await store.list(),
    frame,
    takeFrame: (placement) => {
      refuseWaiting(source.name, placement);
      frame = placement.frame;
    },
  };
  try {
    // a table without coordinates can say what system the project is in, too
    if ((declare.crs || declare[PROJECT_SYSTEM]) && !frame)
      frame = (await placementFor(declare, frame, context.crsTable)).frame;
    const known = formatNamed(format);
    if (!known) throw await unknownFormat(source);
    const loaded = await known.load(loading);
    const around = { objects: loading.objects, frame, crsTable: context.crsTable };
    const far = farFrom(sketchOfObjects(loaded.objects), around);
    if (far) {
      loaded.warnings.push(far);
      for (const { madeBy } of loaded.objects) if (!madeBy.warnings.includes(far)) madeBy.warnings.push(far);
    }
    const at = new Date().toISOString();
    await store.commit({
      put: loaded.objects,
      facts: frame !== facts.frame ? { frame } : undefined,
      ledger: loaded.objects.map((o) => ({
        at,
        what: 'in' as const,
        object: o.id,
        name: o.name,
        note: `from ${source.name}`,
      })),
    });
    return loaded;
  } catch (cause) {
    for (const id of ids) await store.removeArrays(`${id}/`);
    throw cause;
  }
}
