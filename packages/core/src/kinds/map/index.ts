import { cornersOf } from '../../earth/binGrid.ts';
import type { QuantityMap } from '../../earth/objects.ts';
import { defineKind, fixed } from '../define.ts';
import { SURFACE_FORMATS } from '../surfaces.ts';
import { quantityText } from '../words.ts';

export const map = defineKind<QuantityMap>({
  title: 'Map',
  plural: 'Maps',
  facts: (object, units) => [
    { label: 'Quantity', value: quantityText(object, units) },
    {
      label: 'Range',
      value: `${fixed(units.to(object.range[0], object.unit), 2)} to ${units.text(object.range[1], object.unit, 2)}`,
    },
  ],
  aside: ({ unit }, units) => units.of(unit),
  moved: (object, { binGrid }) => ({ ...object, binGrid: binGrid(object.binGrid) }),
  places: ({ binGrid }) => (binGrid.local ? [] : cornersOf(binGrid)),
  formats: SURFACE_FORMATS,
});
