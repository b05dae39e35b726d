import proj4 from 'proj4';
import type { Crs } from './crs.ts';
import { LithagonError } from './errors.ts';

/** Lengths that map coordinates are measured in, in metres. */
export const METRES = { m: 1, ft: 0.3048, 'us-ft': 1200 / 3937 } as const;
export type MapUnit = keyof typeof METRES;

/** Whether a system's coordinates are longitude and latitude in degrees. */
export function isGeographic(crs: Crs): boolean {
  return /\+proj=longlat/.test(crs.proj4);
}

/** Metres in one unit of a system's coordinates; 1 where these are degrees. */
export function metresPerUnit(crs: Crs): number {
  const length = /\+to_meter=([\d.eE+-]+)/.exec(crs.proj4)?.[1];
  if (length) return Number(length);
  const unit = /\+units=([\w-]+)/.exec(crs.proj4)?.[1];
  return unit && unit in METRES ? METRES[unit as MapUnit] : 1;
}

/** A conversion between two coordinate reference systems. */
export interface Transform {
  /** What it does and how well, as a sentence. */
  says: string;
  /** From coordinates in the units of one system to those of the other. */
  convert(x: number, y: number): [number, number];
}

/** The datum by the name of the geographic system that a projected one is based on. */
const datumName = (crs: Crs) => crs.name.split(' / ')[0].trim().toLowerCase();

/** Parameters of the shift to WGS 84: 0 where the datum is WGS 84 itself, null where none is known. */
function shiftOf(crs: Crs): number | null {
  if (/\+datum=WGS84/.test(crs.proj4)) return 0;
  if (/\+datum=NAD83/.test(crs.proj4)) return 1;
  if (/\+nadgrids=(?!@null)/.test(crs.proj4)) return null;
  const given = /\+towgs84=([\d.,eE+-]+)/.exec(crs.proj4)?.[1];
  if (!given) return null;
  const values = given.split(',').map(Number);
  if (values.every((v) => v === 0)) return 1;
  return values.length >= 7 && values.slice(3).some((v) => v !== 0) ? 7 : 3;
}

/**
 * How coordinates of one system become those of another. A shift between two datums that the table does not know is
 * refused: it is not a shift of nothing.
 * @throws LithagonError `crs` where no transformation is known
 */
export function transformBetween(from: Crs, to: Crs): Transform {
  const call = (crs: Crs) => `EPSG:${crs.code} (${crs.name})`;
  const plain = (crs: Crs) => crs.proj4.replace(/\s*\+(towgs84|nadgrids)=\S+/g, '');
  const between = (a: string, b: string): Transform['convert'] => {
    const pipe = proj4(a, b);
    return (x, y) => {
      const [px, py] = pipe.forward([x, y]);
      if (!Number.isFinite(px) || !Number.isFinite(py))
        throw new LithagonError('crs', `The position ${x}, ${y} lies outside what ${call(to)} can hold.`, {
          fix: 'Check the system that was declared.',
        });
      return [px, py];
    };
  };
  if (datumName(from) === datumName(to))
    return {
      says: `Converted from ${call(from)} to ${call(to)}: one datum, so that only the projection changes (to a millimetre).`,
      convert: between(plain(from), plain(to)),
    };
  const shifts = [shiftOf(from), shiftOf(to)];
  const unknown = shifts[0] === null ? from : shifts[1] === null ? to : null;
  if (unknown)
    throw new LithagonError(
      'crs',
      `No transformation is known here between the datums of ${call(from)} and ${call(to)}: that of ${unknown.name} needs a grid of shifts or parameters that the table lacks.`,
      { fix: 'Convert the file with a program that has them, or load it into a project in its own system.' },
    );
  const worst = Math.max(...(shifts as number[]));
  const accuracy =
    worst === 0
      ? 'to a millimetre'
      : worst === 1
        ? 'the datums are taken as one, which holds to about 2 m'
        : worst === 7
          ? 'by seven-parameter shifts of the EPSG registry, good to about 3 m'
          : 'by a three-parameter shift of the EPSG registry, good to about 10 m';
  return { says: `Converted from ${call(from)} to ${call(to)}, ${accuracy}.`, convert: between(from.proj4, to.proj4) };
}
