import type { CrsRow } from '../../earth/crs.ts';
import { type SystemOfText, shapeOfRow, systemOfWkt } from '../wkt/match.ts';

/** GeoKeys (OGC 19-008r4, annex B) by their names. */
export type GeoKeys = Record<string, unknown>;

/** The code of a system that is put together from keys. */
const USER_DEFINED = 32767;

/** Projections by `ProjCoordTransGeoKey`, as WKT 1 calls them. */
const METHODS: Record<number, string> = {
  1: 'Transverse_Mercator',
  3: 'Hotine_Oblique_Mercator',
  7: 'Mercator_1SP',
  8: 'Lambert_Conformal_Conic_2SP',
  9: 'Lambert_Conformal_Conic_1SP',
  10: 'Lambert_Azimuthal_Equal_Area',
  11: 'Albers_Conic_Equal_Area',
  12: 'Azimuthal_Equidistant',
  15: 'Polar_Stereographic',
  16: 'Oblique_Stereographic',
  17: 'Equirectangular',
  18: 'Cassini_Soldner',
  22: 'Polyconic',
  26: 'New_Zealand_Map_Grid',
};
/** Keys of each parameter, the first that is there being taken. */
const PARAMETERS: [name: string, keys: string[]][] = [
  ['latitude_of_origin', ['ProjNatOriginLatGeoKey', 'ProjFalseOriginLatGeoKey', 'ProjCenterLatGeoKey']],
  [
    'central_meridian',
    ['ProjNatOriginLongGeoKey', 'ProjFalseOriginLongGeoKey', 'ProjCenterLongGeoKey', 'ProjStraightVertPoleLongGeoKey'],
  ],
  ['standard_parallel_1', ['ProjStdParallel1GeoKey']],
  ['standard_parallel_2', ['ProjStdParallel2GeoKey']],
  ['scale_factor', ['ProjScaleAtNatOriginGeoKey', 'ProjScaleAtCenterGeoKey']],
  ['azimuth', ['ProjAzimuthAngleGeoKey']],
  ['false_easting', ['ProjFalseEastingGeoKey', 'ProjFalseOriginEastingGeoKey', 'ProjCenterEastingGeoKey']],
  ['false_northing', ['ProjFalseNorthingGeoKey', 'ProjFalseOriginNorthingGeoKey', 'ProjCenterNorthingGeoKey']],
];
const UNITS: Record<number, number> = { 9001: 1, 9002: 0.3048, 9003: 1200 / 3937 };

const textOf = (keys: GeoKeys, key: string) =>
  typeof keys[key] === 'string' ? (keys[key] as string).replace(/[\0|]+$/, '').trim() : '';
const numberOf = (keys: GeoKeys, key: string) => {
  const value = Number(keys[key]);
  return keys[key] === undefined || !Number.isFinite(value) ? null : value;
};

/** Metres in the unit of projected coordinates, where the keys give one of their own. */
export function metresOfKeys(keys: GeoKeys): number | null {
  const unit = numberOf(keys, 'ProjLinearUnitsGeoKey');
  if (unit === null) return null;
  return UNITS[unit] ?? (unit === USER_DEFINED ? numberOf(keys, 'ProjLinearUnitSizeGeoKey') : null);
}

interface Base {
  name: string;
  datum: string;
  a: number;
  rf: number;
}

function baseOf(keys: GeoKeys, rows: CrsRow[]): Base | null {
  const code = numberOf(keys, 'GeographicTypeGeoKey');
  const row = code !== null && code < USER_DEFINED ? rows.find((r) => r[0] === code) : undefined;
  const shape = row && shapeOfRow(row);
  if (row && shape) return { name: row[1], datum: row[7] ?? row[1], ...shape };
  const a = numberOf(keys, 'GeogSemiMajorAxisGeoKey');
  const b = numberOf(keys, 'GeogSemiMinorAxisGeoKey');
  const rf = numberOf(keys, 'GeogInvFlatteningGeoKey') ?? (a && b && a > b ? a / (a - b) : null);
  if (!a || rf === null) return null;
  // GCS Name = …|Datum = …|Ellipsoid = …
  const citation = textOf(keys, 'GeogCitationGeoKey');
  const said = (what: string) => new RegExp(`${what}\\s*=\\s*([^|]+)`, 'i').exec(citation)?.[1].trim();
  const name = said('GCS Name') ?? citation.split('|')[0];
  return { name, datum: said('Datum') ?? name, a, rf };
}

/** The projection as a text of WKT 1, which says the same things. */
function wktOfKeys(keys: GeoKeys, rows: CrsRow[], name: string): string | null {
  const base = baseOf(keys, rows);
  if (!base) return null;
  const quoted = (text: string) => `"${text.replaceAll('"', '')}"`;
  const geogcs = `GEOGCS[${quoted(base.name)},DATUM[${quoted(base.datum)},SPHEROID["",${base.a},${base.rf}]],PRIMEM["Greenwich",0],UNIT["degree",0.0174532925199433]]`;
  const zone = numberOf(keys, 'ProjectionGeoKey');
  if (zone !== null && ((zone > 16000 && zone <= 16060) || (zone > 16100 && zone <= 16160))) {
    const number = zone % 100;
    return `PROJCS[${quoted(name)},${geogcs},PROJECTION["Transverse_Mercator"],PARAMETER["latitude_of_origin",0],PARAMETER["central_meridian",${6 * number - 183}],PARAMETER["scale_factor",0.9996],PARAMETER["false_easting",500000],PARAMETER["false_northing",${zone > 16100 ? 10000000 : 0}],UNIT["metre",1]]`;
  }
  const method = METHODS[numberOf(keys, 'ProjCoordTransGeoKey') ?? 0];
  if (!method) return numberOf(keys, 'GTModelTypeGeoKey') === 2 ? geogcs : null;
  const parameters = PARAMETERS.flatMap(([parameter, names]) => {
    const value = names.map((key) => numberOf(keys, key)).find((v) => v !== null);
    return value === undefined ? [] : [`PARAMETER["${parameter}",${value}]`];
  });
  return `PROJCS[${quoted(name)},${geogcs},PROJECTION["${method}"],${parameters.join(',')},UNIT["unit",${metresOfKeys(keys) ?? 1}]]`;
}

/**
 * The system that the keys of a GeoTIFF put together where they name none by code: its numbers are matched as those of a
 * WKT text are. Null where they say nothing of a system.
 */
export function systemOfKeys(keys: GeoKeys, rows: CrsRow[]): SystemOfText | null {
  const citations = ['PCSCitationGeoKey', 'GTCitationGeoKey', 'ProjectedCitationGeoKey', 'GeogCitationGeoKey'].map(
    (k) => textOf(keys, k),
  );
  const written = citations.map((text) => /(PROJC[A-Z]*|GEOGC[A-Z]*)\[.*$/s.exec(text)?.[0]).find(Boolean);
  const said = written ? systemOfWkt(written, rows) : null;
  if (said) return said;
  const name = citations.find((text) => text !== '') ?? '';
  const wkt = wktOfKeys(keys, rows, name);
  const found = wkt && systemOfWkt(wkt, rows);
  if (found) return { ...found, name: found.name || 'a system of its own' };
  if (name === '') return null;
  const alike = rows.filter((row) => row[1] === name).map((row) => `EPSG:${row[0]}`);
  return { name: name.slice(0, 80), candidates: alike };
}
