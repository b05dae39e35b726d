import { type EarthObject, unitsOf } from '@lithagon/core';
import { counted, figure } from '../../ui/format';

const PLURAL: Record<string, string> = {
  volume: 'Volumes',
  'seismic line': '2D lines',
  navigation: 'Navigation',
  well: 'Wells',
  logs: 'Logs',
  horizon: 'Horizons',
  fault: 'Faults',
  polygon: 'Outlines',
  points: 'Points',
  tops: 'Tops',
  checkshots: 'Checkshots',
  pressures: 'Pressures',
  facies: 'Facies',
  'velocity model': 'Velocity models',
  'result table': 'Result tables',
  'time-depth relation': 'Time–depth relations',
  wavelet: 'Wavelets',
  picks: 'Picks',
  map: 'Maps',
  contacts: 'Fluid contacts',
};

/** A kind of object as the title of several. */
export const titleOf = (kind: string) => PLURAL[kind] ?? kind.replace(/^./, (c) => c.toUpperCase());

/** What tells an object apart from others of its kind, in a word or two. */
export function asideOf(object: EarthObject, units = unitsOf(null)): string {
  switch (object.kind) {
    case 'volume':
      return object.quantity;
    case 'seismic line':
      return counted(object.cdps.length, 'trace');
    case 'navigation':
      return counted(object.points.length, 'point');
    case 'fault':
      return counted(object.sticks.length, 'stick');
    case 'horizon':
      return `${(100 * object.filled).toFixed(0)} %`;
    case 'well':
      return object.status ?? '';
    case 'logs':
      return counted(object.curves.length, 'curve');
    case 'velocity model':
      return counted(object.layers.length, 'layer');
    case 'time-depth relation':
      return figure(object.correlation, 2);
    case 'contacts':
      return units.text(object.owcM, 'm', 0);
    case 'map':
      return units.of(object.unit);
    case 'picks':
      return counted(object.points.length, 'pick');
    case 'wavelet':
      return object.method;
    case 'stratigraphic column':
      return counted(object.units.length, 'unit');
    case 'synthetic gather':
      return counted(object.anglesDeg.length, 'angle');
    case 'crossplot class':
      return object.x.of;
    case 'points':
      return counted(object.points.length, 'point');
    case 'polygon':
      return object.closed ? 'area' : 'line';
    default:
      return counted(object.rows.length, 'row');
  }
}
