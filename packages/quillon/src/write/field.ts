import { createHash } from 'node:crypto';
import { createReadStream, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Field, makeField } from '../model/field.ts';
import { extentOf } from '../model/survey.ts';
import { imageSurvey } from '../seismic/survey.ts';
import { writeTruth } from '../truth/files.ts';
import { writeInterpretation } from './interpretationFiles.ts';
import { type Declared, writeLines, writeStacks, writeVelocities } from './seismicFiles.ts';
import { writeJson } from './text.ts';
import { writeWells } from './wellFiles.ts';

async function sha256(path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(path)) hash.update(new Uint8Array(chunk));
  return hash.digest('hex');
}

function readme(field: Field, files: Declared[]): string {
  return [
    '# The Quillon field',
    '',
    'Made-up data of a made-up field on the Osmund Shelf, for trying Lithagon out. Coordinates are WGS 84 / UTM zone 40S',
    '(EPSG:32740) in metres; the seismic datum is mean sea level; an increase of impedance is a positive sample; sea water',
    `carries sound at ${field.rocks.seaWater.vp.toFixed(0)} m/s. \`truth.json\` and \`truth/\` hold the answers; nothing else needs them.`,
    '',
    ...files.map((f) => `- \`${f.file}\`: ${f.what}`),
    '',
  ].join('\n');
}

export interface WriteOptions {
  seed?: number;
  size?: 'full' | 'small';
  onProgress?: (what: string, part: number) => void;
}

/** Write every file of the field of a seed into `dir`, truth included. Deterministic to the byte. */
export async function writeField(dir: string, options: WriteOptions = {}): Promise<{ files: Declared[] }> {
  const { seed = 1, size = 'full', onProgress } = options;
  mkdirSync(dir, { recursive: true });
  onProgress?.('Laying down the beds', 0);
  const field = makeField(seed);
  const extent = extentOf(size, field.traps.crest.topU, field.traps.crest.topV);
  const imaged = await imageSurvey(field, extent, (part) => onProgress?.('Shooting the survey', part));
  onProgress?.('Writing the stacks', 0);
  const files = [...writeStacks(dir, imaged), ...writeVelocities(dir, field, imaged)];
  if (size === 'full') files.push(...(await writeLines(dir, field)));
  onProgress?.('Drilling the wells', 0);
  files.push(...writeWells(dir, field), ...writeInterpretation(dir, field, imaged));
  onProgress?.('Writing the truth', 0);
  writeTruth(dir, field, imaged);
  const manifest = [];
  for (const f of files) manifest.push({ ...f, sha256: await sha256(join(dir, f.file)) });
  writeJson(join(dir, 'manifest.json'), { field: 'Quillon', seed, size, crs: 'EPSG:32740', files: manifest });
  writeFileSync(join(dir, 'README.md'), readme(field, files));
  return { files };
}
