// biome-ignore-all lint/suspicious/noControlCharactersInRegex: files are told apart by their first bytes
import { LithagonError } from '../earth/errors.ts';
import { looksLikeP190 } from '../formats/p190/parse.ts';
import { looksLikeSegy } from '../formats/segy/sniff.ts';
import { type ByteSource, decoded } from '../formats/source.ts';
import { zipNames } from '../formats/zip.ts';
import type { FileFormat } from './report.ts';

const READ =
  'SEG-Y, LAS, CSV and other tables, GeoJSON, shapefiles, GeoTIFF, netCDF and ASCII grids, P1/90 and zipped Zarr are read.';

const REGRID = 'Write it as a GeoTIFF, a netCDF or an ESRI ASCII grid.';
const UNPACK = 'Unpack it first.';
const PICTURE = 'Ask for the data that it shows.';

/** Files of other kinds by how they begin, a byte a character: what they are, and what to do with them. */
const OTHERS: [begins: RegExp, what: string, fix: string][] = [
  [/^%PDF/, 'a PDF document', PICTURE],
  [/^(\x89PNG|\xff\xd8\xff|GIF8)/, 'a picture', PICTURE],
  [/^\x1f\x8b/, 'a gzip file', UNPACK],
  [/^(BZh|\xfd7zXZ|7z\xbc\xaf|Rar!)/, 'a compressed file', UNPACK],
  [
    /^PK\x03\x04/,
    'a zip file without a shapefile or Zarr in it',
    'Unpack it first; save the sheets of a workbook as CSV.',
  ],
  [/^\xd0\xcf\x11\xe0/, 'a document or workbook of an office program', 'Save its sheets as CSV.'],
  [/^PAR1/, 'a Parquet table', 'Save it as CSV.'],
  [/^SQLite format 3/, 'a SQLite database', 'Write its tables as CSV, its shapes as GeoJSON.'],
  [/^.{4}V\d\.\d\dRECORD/s, 'a DLIS file of logs (RP 66)', 'Write its curves as LAS.'],
  // revision 1 and 2 name the format in two bytes of binary-coded decimals after the file number
  [/^..\x80[\x15\x22\x24\x36\x38\x42\x44\x48\x58]/s, 'a SEG-D field record', 'Process and stack it, and write SEG-Y.'],
  [/^GRIB/, 'a GRIB grid', REGRID],
  [/^(DSAA|DSBB|DSRB|EHFA_HEADER_TAG)/, 'a grid of another kind', REGRID],
  [
    // kind of table, then year from 1900, month and day of the last change
    /^[\x02\x03\x30\x43\x83\x8b\xf5][\x46-\xc8][\x01-\x0c][\x01-\x1f]/,
    'a dBASE table',
    'Drop it together with the shapefile (.shp) whose names it holds, or save it as CSV.',
  ],
];

/** Refuse a file that is none of those read, by what it is where that is plain. */
export async function unknownFormat(source: ByteSource): Promise<LithagonError> {
  const { name, size } = source;
  if (size === 0)
    return new LithagonError('format', `${name} is empty.`, { object: name, fix: 'Copy it again from where it came.' });
  const head = await source.read(0, Math.min(size, 200));
  const text = String.fromCharCode(...head);
  const known = OTHERS.find(([begins]) => begins.test(text));
  if (!known) return new LithagonError('format', `${name} is of no kind that is known.`, { object: name, fix: READ });
  const [begins, what, fix] = known;
  const sign = what.endsWith('of another kind') ? ` (it begins with “${begins.exec(text)?.[0]}”)` : '';
  return new LithagonError('format', `${name} is ${what}${sign}, which is not read.`, { object: name, fix });
}

/** What kind of file a zip file stands for, by the names in it. */
async function inZip(source: ByteSource): Promise<FileFormat> {
  const names = await zipNames(source).catch(() => null);
  // what was cut short is refused by the reader of what most zip files here are
  if (!names || names.some((n) => /(^|\/)(zarr\.json|\.zarray|\.zgroup)$/.test(n))) return 'Zarr';
  return names.some((n) => /\.shp$/i.test(n)) ? 'zipped shapefile' : 'unknown';
}

/** What kind of file it is, from its content first and its name second. */
export async function recognise(source: ByteSource): Promise<FileFormat> {
  const head = await source.read(0, Math.min(source.size, 3600));
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength);
  const extension = source.name.toLowerCase().split('.').pop() ?? '';
  if (['sgy', 'segy'].includes(extension)) return 'SEG-Y';
  const mark = head.length >= 4 ? view.getUint32(0) : 0;
  if ([0x49492a00, 0x4d4d002a, 0x49492b00, 0x4d4d002b].includes(mark)) return 'GeoTIFF';
  if (mark === 0x89484446 || [0x43444601, 0x43444602, 0x43444605].includes(mark)) return 'netCDF';
  if (mark === 0x504b0304 || mark === 0x504b0506) return await inZip(source);
  if (head.length >= 100 && view.getInt32(0) === 9994) return extension === 'shx' ? 'unknown' : 'shapefile';
  if (looksLikeSegy(head, source.size)) return 'SEG-Y';
  const wide = /^(\xff\xfe|\xfe\xff)/.test(String.fromCharCode(...head.subarray(0, 2)));
  const looksText =
    head.length > 0 &&
    (wide || head.subarray(0, 1000).every((b) => b === 9 || b === 10 || b === 13 || (b >= 32 && b !== 127)));
  if (!looksText) return 'unknown';
  const text = decoded(head)
    .replace(/^\uFEFF/, '')
    .trimStart();
  if (/^(#.*\n)*~v/i.test(text) || extension === 'las') return 'LAS';
  if (extension === 'geojson' || (text.startsWith('{') && text.includes('"Feature'))) return 'GeoJSON';
  if (/^\s*ncols\s+\d+/i.test(text)) return 'ESRI ASCII grid';
  if (looksLikeP190(text)) return 'P1/90';
  if (/^(DSAA|%PDF)/.test(text)) return 'unknown';
  if (/^(csv|txt|dat|tsv|asc|xyz)$/.test(extension) || text.split('\n', 1)[0].split(/[,;\t]/).length > 1) return 'CSV';
  return 'unknown';
}
