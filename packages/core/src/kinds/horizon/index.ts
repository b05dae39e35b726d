import { cornersOf } from '../../earth/binGrid.ts';
import { domainUnit, type Horizon } from '../../earth/objects.ts';
import { defineKind, fixed } from '../define.ts';
import { SURFACE_FORMATS } from '../surfaces.ts';

export const horizon = defineKind<Horizon>({
  title: 'Horizon',
  plural: 'Horizons',
  facts: ({ range, domain, filled }, units) => [
    {
      label: 'Range',
      value: `${fixed(units.to(range[0], domainUnit(domain)), 1)} to ${units.text(range[1], domainUnit(domain))}`,
    },
    { label: 'Filled', value: `${fixed(100 * filled, 1)} % of its bins` },
  ],
  aside: ({ filled }) => `${(100 * filled).toFixed(0)} %`,
  moved: (object, { binGrid }) => ({ ...object, binGrid: binGrid(object.binGrid) }),
  places: ({ binGrid }) => (binGrid.local ? [] : cornersOf(binGrid)),
  formats: SURFACE_FORMATS,
});
