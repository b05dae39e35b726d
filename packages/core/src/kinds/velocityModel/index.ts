import { cornersOf } from '../../earth/binGrid.ts';
import type { Units } from '../../earth/display.ts';
import type { VelocityModel } from '../../earth/objects.ts';
import { lawInWords } from '../../velocity/law.ts';
import { counted, defineKind, type Move } from '../define.ts';

/** What has a place, moved. */
const at =
  (point: Move['point']) =>
  <P extends { x: number; y: number }>(one: P): P => {
    const [x, y] = point(one.x, one.y);
    return { ...one, x, y };
  };

/** Whose tops a layer honours, and how far they are heard. */
function correctedBy(corrections: VelocityModel['layers'][number]['corrections'], units: Units): string {
  const last = corrections?.at(-1);
  if (!last) return '';
  const wells = [...new Set(last.points.map((p) => p.well))].join(', ');
  return `; by ${wells} within ${units.text(last.rangeM, 'm', 0)}`;
}

export const velocityModel = defineKind<VelocityModel>({
  title: 'Velocity model',
  plural: 'Velocity models',
  facts: ({ waterVelocity, layers, volume }, units) => [
    { label: 'Water', value: units.text(waterVelocity, 'm/s', 0) },
    ...(volume ? [{ label: 'Velocity volume', value: volume.name }] : []),
    ...layers.map(({ form = 'v0 + k·z from the datum', ...l }) => ({
      label: l.base ? `To ${l.base}` : 'Below',
      value: `${lawInWords({ ...l, form }, (v) => units.text(v, 'm/s', 0))}${l.v0Map ? ', changing from place to place' : ''}${l.points ? `; ${units.text(l.rms, 'm')} rms at ${l.points} points of wells` : ''}${correctedBy(l.corrections, units)}`,
    })),
  ],
  aside: ({ layers }) => counted(layers.length, 'layer'),
  moved: (object, { binGrid, point }) => ({
    ...object,
    ...(object.binGrid ? { binGrid: binGrid(object.binGrid) } : {}),
    ...(object.path ? { path: object.path.map(([x, y]) => point(x, y)) } : {}),
    ...(object.volume ? { volume: { ...object.volume, binGrid: binGrid(object.volume.binGrid) } } : {}),
    layers: object.layers.map((layer) => ({
      ...layer,
      ...(layer.corrections
        ? { corrections: layer.corrections.map((c) => ({ ...c, points: c.points.map(at(point)) })) }
        : {}),
      ...(layer.wells ? { wells: layer.wells.map(at(point)) } : {}),
    })),
  }),
  places: ({ binGrid, path }) => (binGrid ? cornersOf(binGrid) : (path ?? [])),
  formats: {},
});
