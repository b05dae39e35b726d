import { readdir } from 'node:fs/promises';
import { basename, dirname, join, resolve } from 'node:path';
import {
  asLithagonError,
  cutPlanes,
  type Declarations,
  type EarthObject,
  factsOf,
  findObject,
  inspectFile,
  LithagonError,
  listObjects,
  loadFile,
  outOfDate,
  placedAt,
  placedLike,
  placedVolume,
  type Store,
  shownParams,
  type Volume,
} from '@lithagon/core';
import { crsTable, fileSource } from '@lithagon/core/node';
import { type Output, progressLine, table, UsageError } from '../output.ts';
import { withProject } from '../withProject.ts';

/** Files that belong to a shapefile: those of its name beside it. */
async function companionsOf(path: string) {
  if (!/\.shp$/i.test(path)) return [];
  const stem = basename(path)
    .replace(/\.[^.]*$/, '')
    .toLowerCase();
  const beside = await readdir(dirname(path)).catch(() => []);
  const own = beside.filter(
    (name) => /\.(dbf|prj|cpg|shx)$/i.test(name) && name.toLowerCase().replace(/\.[^.]*$/, '') === stem,
  );
  return Promise.all(own.map((name) => fileSource(join(dirname(path), name))));
}

/** What the readers make of files before anything is loaded. */
export async function inspect(
  files: string[],
  project: string | undefined,
  declare: Declarations,
  json: boolean,
  output: Output,
): Promise<void> {
  const reports = [];
  const held = project
    ? await withProject(project, {}, output, async (store) => ({
        objects: await store.list(),
        frame: (await store.facts()).frame,
      }))
    : { objects: [], frame: null };
  for (const path of files) {
    const source = await fileSource(path);
    const beside = await companionsOf(path);
    const around = { ...held, crsTable };
    const { segy, ...report } = await inspectFile(source, declare, { around, beside });
    // a picture is for screens
    const { sample, ...headers } = segy ?? {};
    reports.push({ ...report, ...headers, sampleTraces: sample?.traces });
    for (const each of [source, ...beside]) await each.close();
  }
  if (json) return output.out(JSON.stringify(reports, null, 1));
  for (const report of reports) {
    output.out(`${report.file}: ${report.takenFor}`);
    output.out(table([...report.facts.map((f) => [`  ${f.label}`, f.value])]));
    for (const p of report.positions?.slice(0, 3) ?? [])
      output.out(`  bytes ${p.inline}, ${p.crossline}, ${p.x}, ${p.y} score ${p.score.toFixed(2)}: ${p.why}`);
    for (const q of report.questions)
      output.out(`  to declare: ${q.key} (${q.label}: ${q.options.map((o) => o.value).join(', ')})`);
    for (const p of report.problems) output.out(`  note: ${p}`);
    if (report.refused) output.out(`  cannot be loaded: ${report.refused.message} ${report.refused.fix ?? ''}`);
  }
}

export async function load(
  files: string[],
  project: string,
  declare: Declarations,
  json: boolean,
  output: Output,
): Promise<void> {
  type Source = Awaited<ReturnType<typeof fileSource>>;
  const sources: { source: Source; beside: Source[] }[] = [];
  try {
    for (const path of files) sources.push({ source: await fileSource(path), beside: await companionsOf(path) });
    const name = basename(resolve(project)).slice(0, 200) || 'Project';
    await withProject(project, { name, hold: 'lithagon load' }, output, async (store) => {
      const onProgress = progressLine(output);
      const loaded: Pick<EarthObject, 'id' | 'kind' | 'name'>[] = [];
      for (const { source, beside } of sources) {
        const context = {
          store,
          crsTable,
          onProgress: (part: number, what: string) => onProgress(part, `${source.name}: ${what}`),
        };
        const result = await loadFile(source, declare, context, beside).catch((cause) => {
          if (loaded.length > 0) output.err(`Loaded before it, and kept: ${loaded.map((o) => o.name).join(', ')}.`);
          throw cause;
        });
        for (const object of result.objects) loaded.push({ id: object.id, kind: object.kind, name: object.name });
        for (const warning of result.warnings) output.err(`${source.name}: ${warning}`);
        for (const object of result.objects) if (object.kind === 'volume') await cut(store, object, output, onProgress);
      }
      if (json) return output.out(JSON.stringify(loaded, null, 1));
      output.out(table(loaded.map((o) => [o.kind, o.name])));
    });
  } finally {
    for (const { source, beside } of sources) for (const each of [source, ...beside]) await each.close();
  }
}

/** Cut a volume for crosslines and slices; it is whole without, so that failing at it undoes nothing. */
async function cut(
  store: Store,
  volume: Volume,
  output: Output,
  onProgress: (part: number, what: string) => void,
): Promise<void> {
  try {
    await cutPlanes(store, volume, undefined, (part) =>
      onProgress(part, `${volume.name}: cutting for crosslines and slices`),
    );
  } catch (cause) {
    output.err(
      `${volume.name} is loaded, but its crosslines and slices will be slow: ${asLithagonError(cause).sentence}`,
    );
  }
}

export async function list(project: string, json: boolean, output: Output): Promise<void> {
  const listed = await withProject(project, {}, output, async (store) => listObjects(await store.list()));
  if (json) return output.out(JSON.stringify(listed, null, 1));
  output.out(
    table([
      ['stage', 'kind', 'name', 'domain', 'quantity', ''],
      ...listed.map((o) => [
        o.stage,
        o.kind,
        o.name,
        o.domain ?? '',
        o.quantity ?? '',
        o.outOfDate ? 'out of date' : o.waitingFor ? `waits for ${o.waitingFor}` : '',
      ]),
    ]),
  );
}

export async function show(name: string, project: string, json: boolean, output: Output): Promise<void> {
  const objects = await withProject(project, {}, output, (store) => store.list());
  const object = findObject(objects, name);
  const old = outOfDate(objects).get(object.id);
  if (json)
    return output.out(
      JSON.stringify({ ...object, facts: factsOf(object), outOfDate: old !== undefined, why: old }, null, 1),
    );
  output.out(`${object.name} (${object.id}, revision ${object.revision.slice(0, 8)})`);
  output.out(table(factsOf(object).map((f) => [`  ${f.label}`, f.value])));
  const { madeBy } = object;
  output.out(
    `  Made by ${madeBy.step} version ${madeBy.version}${madeBy.file ? ` from ${madeBy.file}` : ''} at ${madeBy.started} in ${madeBy.tookMs} ms`,
  );
  for (const [role, references] of Object.entries(madeBy.inputs))
    output.out(
      `  ${role}: ${references.map((r) => objects.find((o) => o.id === r.split('@')[0])?.name ?? r).join(', ')}`,
    );
  for (const { title, value } of shownParams(madeBy.step, madeBy.params)) output.out(`  ${title}: ${value}`);
  for (const warning of madeBy.warnings) output.out(`  note: ${warning}`);
  if (old) output.out(`  Out of date: ${old}.`);
}

/** Put a volume that lies on a grid of its own on the map. */
export async function place(
  name: string,
  project: string,
  { like, corner }: { like?: string; corner: string[] },
  output: Output,
): Promise<void> {
  const bins = corner.map((text) => {
    const [inline, crossline, x, y] = text.split(',').map((part) => (part.trim() === '' ? Number.NaN : Number(part)));
    return { inline, crossline, x, y: y ?? Number.NaN };
  });
  if ((like === undefined) === (bins.length === 0))
    throw new UsageError('Say either --like NAME, or --corner INLINE,CROSSLINE,X,Y three times.');
  await withProject(project, { hold: 'lithagon place' }, output, async (store) => {
    const objects = await store.list();
    const volumeNamed = (wanted: string): Volume => {
      const object = findObject(objects, wanted);
      if (object.kind === 'volume') return object;
      throw new LithagonError('place', `${object.name} is a ${object.kind}, not a volume.`, { object: object.name });
    };
    const volume = volumeNamed(name);
    if (!volume.binGrid.local)
      throw new LithagonError('place', `${volume.name} has its place already.`, {
        object: volume.name,
        fix: 'Only volumes without coordinates are placed.',
      });
    const { binGrid } = volume;
    const placed = like === undefined ? placedAt(binGrid, bins) : placedLike(binGrid, volumeNamed(like).binGrid);
    await store.commit({ put: [placedVolume(volume, placed)] });
    output.out(`${volume.name} has its place.`);
  });
}
