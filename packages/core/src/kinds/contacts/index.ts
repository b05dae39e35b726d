import type { FluidContacts } from '../../earth/objects.ts';
import { defineKind, fixed } from '../define.ts';

export const contacts = defineKind<FluidContacts>({
  title: 'Fluid contacts',
  plural: 'Fluid contacts',
  facts(object, units) {
    const typed = object.misfitPa === undefined;
    const range = (r: [number, number] | null) =>
      r ? ` (${fixed(units.to(r[0], 'm'), 1)} to ${fixed(units.to(r[1], 'm'), 1)})` : typed ? ' (typed)' : '';
    const depth = units.text(object.owcM, 'm TVDSS');
    const noOil = object.gocM !== null && object.gocM === object.owcM;
    const gas = object.gocM === null ? 'none' : `${units.text(object.gocM, 'm TVDSS')}${range(object.gocRange)}`;
    return [
      ...(noOil ? [] : [{ label: 'Gas–oil', value: gas }]),
      {
        label: noOil ? 'Gas–water' : 'Oil–water',
        value:
          object.base === 'at or below'
            ? `at or below ${depth}, the deepest ${noOil ? 'gas' : 'oil'}`
            : `${depth}${range(object.owcRange)}${object.base === 'assumed' ? ', against water that was assumed' : ''}`,
      },
      ...(object.misfitPa === undefined
        ? []
        : [
            {
              label: 'Misfit',
              value: `${units.text(object.misfitPa, 'Pa', units.of('Pa') === 'psi' ? 0 : 4)} rms`,
            },
          ]),
    ];
  },
  aside: ({ owcM }, units) => units.text(owcM, 'm', 0),
  moved: null,
  places: () => [],
  formats: {},
});
