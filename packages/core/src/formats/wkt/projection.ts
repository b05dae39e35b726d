import { findNode, type WktNode } from './parse.ts';

/** Letters and digits of a name alone, so that spellings with blanks, underscores and brackets are one. */
export const plain = (text: string) => text.toLowerCase().replace(/[^a-z0-9]+/g, '');

// Names of projections in WKT 1 (OGC 01-009), in .prj files and in WKT 2 (EPSG methods), by the projection that they are.
const PROJECTIONS: Record<string, string[]> = {
  tmerc: ['transversemercator', 'gausskruger', 'transversemercatorcomplex'],
  lcc: [
    'lambertconformalconic',
    'lambertconformalconic1sp',
    'lambertconicconformal1sp',
    'lambertconformalconic2sp',
    'lambertconicconformal2sp',
    'lambertconformalconic2spbelgium',
    'lambertconicconformal2spbelgium',
    'lambertconicconformalwestorientated',
  ],
  merc: ['mercator', 'mercator1sp', 'mercatorvarianta', 'mercator2sp', 'mercatorvariantb'],
  aea: ['albers', 'albersconicequalarea', 'albersequalarea'],
  stere: [
    'stereographic',
    'polarstereographic',
    'polarstereographicvarianta',
    'polarstereographicvariantb',
    'stereographicnorthpole',
    'stereographicsouthpole',
  ],
  sterea: ['obliquestereographic', 'doublestereographic'],
  omerc: [
    'hotineobliquemercator',
    'hotineobliquemercatorvarianta',
    'hotineobliquemercatorvariantb',
    'hotineobliquemercatorazimuthnaturalorigin',
    'hotineobliquemercatorazimuthcenter',
    'obliquemercator',
    'rectifiedskeworthomorphicnaturalorigin',
    'rectifiedskeworthomorphiccenter',
  ],
  somerc: ['swissobliquecylindrical', 'swissobliquemercator'],
  cass: ['cassini', 'cassinisoldner'],
  poly: ['polyconic', 'americanpolyconic'],
  laea: ['lambertazimuthalequalarea'],
  krovak: ['krovak', 'krovaknorthorientated'],
  nzmg: ['newzealandmapgrid'],
  eqc: ['equidistantcylindrical', 'platecarree', 'equirectangular'],
  cea: ['cylindricalequalarea', 'lambertcylindricalequalarea'],
  bonne: ['bonne'],
  eqdc: ['equidistantconic'],
  aeqd: ['azimuthalequidistant', 'modifiedazimuthalequidistant'],
};
/** Variants whose coordinates count from where the initial line meets the equator of the aposphere. */
const FROM_NATURAL_ORIGIN = [
  'hotineobliquemercator',
  'hotineobliquemercatorvarianta',
  'hotineobliquemercatorazimuthnaturalorigin',
  'rectifiedskeworthomorphicnaturalorigin',
];

type Kind = 'angle' | 'length' | 'number';
const PARAMETERS: [key: string, kind: Kind, names: string[]][] = [
  ['x_0', 'length', ['falseeasting', 'eastingatfalseorigin', 'eastingatprojectioncentre']],
  ['y_0', 'length', ['falsenorthing', 'northingatfalseorigin', 'northingatprojectioncentre']],
  [
    'lon_0',
    'angle',
    [
      'centralmeridian',
      'longitudeofcenter',
      'longitudeofcentre',
      'longitudeofnaturalorigin',
      'longitudeoforigin',
      'longitudeoffalseorigin',
      'longitudeofprojectioncentre',
      'straightverticallongitudefrompole',
    ],
  ],
  [
    'lat_0',
    'angle',
    [
      'latitudeoforigin',
      'latitudeofcenter',
      'latitudeofcentre',
      'latitudeofnaturalorigin',
      'latitudeoffalseorigin',
      'latitudeofprojectioncentre',
    ],
  ],
  ['lat_1', 'angle', ['standardparallel1', 'latitudeof1ststandardparallel', 'latitudeofstandardparallel']],
  ['lat_2', 'angle', ['standardparallel2', 'latitudeof2ndstandardparallel']],
  [
    'k_0',
    'number',
    ['scalefactor', 'scalefactoratnaturalorigin', 'scalefactoroninitialline', 'scalefactoronpseudostandardparallel'],
  ],
  ['alpha', 'angle', ['azimuth', 'azimuthofinitialline', 'azimuthatprojectioncentre']],
  ['gamma', 'angle', ['rectifiedgridangle', 'anglefromrectifiedtoskewgrid', 'xyplanerotation']],
];

/** What a coordinate system says of itself in numbers. */
export interface WktSystem {
  name: string;
  /** Names of its geographic system and of its datum. */
  base: string;
  datum: string;
  degrees: boolean;
  code: number | null;
  /** Central meridian in degrees east of Greenwich, where it has one. */
  meridian: number | null;
  primeMeridian: number;
  /** Definition for proj4; null where the projection is none that is known. */
  proj4: string | null;
}

const ANGLE_UNITS = ['ANGLEUNIT'];
const LENGTH_UNITS = ['LENGTHUNIT'];
const own = (node: WktNode, keywords: string[]) => node.children.find((c) => keywords.includes(c.keyword)) ?? null;

/** The projected or geographic system of a WKT text, in numbers; null where there is none. */
export function systemIn(root: WktNode): WktSystem | null {
  const node =
    findNode(root, ['PROJCS', 'PROJCRS', 'PROJECTEDCRS']) ??
    findNode(root, ['GEOGCS', 'GEOGCRS', 'GEODCRS', 'GEOGRAPHICCRS', 'GEODETICCRS']);
  if (!node) return null;
  const degrees = !node.keyword.startsWith('PROJ');
  const base = degrees ? node : findNode(node, ['GEOGCS', 'BASEGEOGCRS', 'BASEGEODCRS']);
  const ellipsoid = findNode(node, ['SPHEROID', 'ELLIPSOID']);
  const authority = own(node, ['AUTHORITY', 'ID']);
  const code =
    authority && /epsg/i.test(authority.texts[0] ?? '')
      ? Number(authority.texts[1] ?? authority.numbers[0])
      : Number.NaN;
  const angle = (base && own(base, ['UNIT', ...ANGLE_UNITS])?.numbers[0]) || Math.PI / 180;
  const inDegrees = (angle * 180) / Math.PI;
  const primeMeridian = ((base && findNode(base, ['PRIMEM', 'PRIMEMERIDIAN'])?.numbers[0]) ?? 0) * inDegrees;
  const system: WktSystem = {
    name: node.texts[0] ?? '',
    base: base?.texts[0] ?? '',
    datum: findNode(node, ['DATUM', 'TRF', 'GEODETICDATUM', 'ENSEMBLE'])?.texts[0] ?? '',
    degrees,
    code: Number.isInteger(code) ? code : null,
    meridian: null,
    primeMeridian,
    proj4: null,
  };
  if (!base || !ellipsoid || ellipsoid.numbers.length < 2) return system;
  const [a, rf] = ellipsoid.numbers;
  const axis = a * (own(ellipsoid, [...LENGTH_UNITS, 'UNIT'])?.numbers[0] ?? 1);
  const shape = `+a=${axis} ${rf > 0 ? `+rf=${rf}` : `+b=${axis}`}${primeMeridian !== 0 ? ` +pm=${primeMeridian}` : ''}`;
  if (degrees) return { ...system, proj4: `+proj=longlat ${shape} +no_defs` };
  const method = findNode(node, ['PROJECTION', 'METHOD'])?.texts[0] ?? '';
  const kind = Object.keys(PROJECTIONS).find((key) => PROJECTIONS[key].includes(plain(method)));
  // which way their axes run is not in the numbers: they are known by name
  if (!kind || kind === 'krovak' || plain(method).includes('southorient')) return system;
  const length = own(node, ['UNIT', ...LENGTH_UNITS])?.numbers[0] ?? findNode(node, LENGTH_UNITS)?.numbers[0] ?? 1;
  const values: Record<string, number> = {};
  const parameters = [...node.children, ...(findNode(node, ['CONVERSION'])?.children ?? [])].filter(
    (c) => c.keyword === 'PARAMETER',
  );
  for (const each of parameters) {
    const found = PARAMETERS.find(([, , names]) => names.includes(plain(each.texts[0] ?? '')));
    if (!found || each.numbers.length === 0) continue;
    const [key, what] = found;
    const unit = own(each, [...LENGTH_UNITS, ...ANGLE_UNITS, 'SCALEUNIT', 'UNIT'])?.numbers[0];
    const scale = what === 'length' ? (unit ?? length) : what === 'angle' ? ((unit ?? angle) * 180) / Math.PI : 1;
    values[key] = each.numbers[0] * scale;
  }
  const text = Object.entries(named(kind, plain(method), values)).map(([key, value]) => `+${key}=${value}`);
  if (FROM_NATURAL_ORIGIN.includes(plain(method))) text.push('+no_uoff');
  return {
    ...system,
    meridian: values.lon_0 === undefined ? null : values.lon_0 + primeMeridian,
    proj4: `+proj=${kind} ${text.join(' ')} ${shape} +to_meter=${length} +no_defs`,
  };
}

/** Parameters under the names that a projection has for them. */
function named(kind: string, method: string, values: Record<string, number>): Record<string, number> {
  const { lat_1, lon_0, lat_0, ...rest } = values;
  const out: Record<string, number> = { ...rest };
  if (lon_0 !== undefined) out[kind === 'omerc' ? 'lonc' : 'lon_0'] = lon_0;
  if (lat_0 !== undefined) out.lat_0 = lat_0;
  if (lat_1 !== undefined) out[['merc', 'stere', 'eqc', 'cea'].includes(kind) ? 'lat_ts' : 'lat_1'] = lat_1;
  if (kind === 'lcc' && lat_1 === undefined && lat_0 !== undefined) out.lat_1 = lat_0;
  // the pole that coordinates are drawn from
  if (kind === 'stere' && out.lat_0 === undefined)
    out.lat_0 = method.endsWith('southpole') || (out.lat_ts ?? 1) < 0 ? -90 : 90;
  if (kind === 'stere' && out.lat_ts === undefined && Math.abs(out.lat_0) < 90 && method.startsWith('polar')) {
    out.lat_ts = out.lat_0;
    out.lat_0 = Math.sign(out.lat_0) * 90;
  }
  if (kind === 'omerc' && out.gamma === undefined && out.alpha !== undefined) out.gamma = out.alpha;
  return out;
}
