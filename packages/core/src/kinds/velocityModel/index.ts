import { cornersOf } from '../../earth/binGrid.ts';
import type { VelocityModel } from '../../earth/objects.ts';
import { counted, defineKind } from '../define.ts';

export const velocityModel = defineKind<VelocityModel>({
  title: 'Velocity model',
  plural: 'Velocity models',
  facts: ({ waterVelocity, layers }, units) => [
    { label: 'Water', value: units.text(waterVelocity, 'm/s', 0) },
    ...layers.map((l) => ({
      label: `To ${l.base}`,
      value: `${units.text(l.v0, 'm/s', 0)} + ${l.k.toFixed(3)} /s · z${l.points ? `; ${units.text(l.rms, 'm')} rms at ${l.points} points` : ''}`,
    })),
  ],
  aside: ({ layers }) => counted(layers.length, 'layer'),
  moved: (object, { binGrid }) => (object.binGrid ? { ...object, binGrid: binGrid(object.binGrid) } : object),
  places: ({ binGrid }) => (binGrid ? cornersOf(binGrid) : []),
  formats: {},
});
