// biome-ignore-all lint/suspicious/noControlCharactersInRegex: files are told apart by their first bytes
import { LithagonError } from '../earth/errors.ts';
import { type ByteSource, decoded } from '../formats/source.ts';
import type { Head } from './formats/define.ts';
import { allFormats } from './formats/index.ts';
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

/** What a file begins with, as formats tell it. */
async function headOf(source: ByteSource): Promise<Head> {
  const bytes = await source.read(0, Math.min(source.size, 3600));
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const wide = /^(\xff\xfe|\xfe\xff)/.test(String.fromCharCode(...bytes.subarray(0, 2)));
  const looksText =
    bytes.length > 0 &&
    (wide || bytes.subarray(0, 1000).every((b) => b === 9 || b === 10 || b === 13 || (b >= 32 && b !== 127)));
  const text = looksText
    ? decoded(bytes)
        .replace(/^\uFEFF/, '')
        .trimStart()
    : null;
  return {
    source,
    bytes,
    view,
    mark: bytes.length >= 4 ? view.getUint32(0) : 0,
    extension: source.name.toLowerCase().split('.').pop() ?? '',
    text,
  };
}

/** What kind of file it is, from its content first and its name second: the format that is surest of it. */
export async function recognise(source: ByteSource): Promise<FileFormat> {
  const head = await headOf(source);
  let [best, format]: [number, FileFormat] = [0, 'unknown'];
  for (const each of allFormats()) {
    const sure = await each.sniff(head);
    if (sure > best) [best, format] = [sure, each.name];
  }
  return format;
}
