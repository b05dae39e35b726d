import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import { shownUnits } from '../../project/units.ts';
import { pressurePoints } from '../../project/wells/checkshots.ts';
import { sampleValue } from '../../project/wells/fluids.ts';
import { contactsFromPressures } from '../../volumes/contacts.ts';
import { choice, defineStep, number } from '../define.ts';

const params = z.object({
  source: choice(
    { title: 'Contacts', description: 'Where the gradients of the pressures meet, or typed below.' },
    ['from pressures', 'typed'],
    'from pressures',
  ),
  gocM: number(
    { title: 'Gas–oil contact', description: 'Typed depth; 0 where there is no gas.', unit: 'm TVDSS' },
    { min: 0, max: 9000, step: 0.5, initial: 0 },
  ),
  owcM: number(
    { title: 'Oil–water contact', description: 'Typed depth.', unit: 'm TVDSS' },
    { min: 0, max: 9000, step: 0.5, initial: 1000 },
  ),
});

export const contacts = defineStep({
  id: 'volumes.contacts',
  version: 1,
  stage: 'volumes',
  title: 'Fluid contacts',
  summary: 'Depths of the gas–oil and oil–water contacts, with the range that the pressures allow.',
  source: 'Pressure gradients after Dake (1978), Fundamentals of Reservoir Engineering',
  reach: 'global',
  inputs: {
    pressures: { kind: 'pressures', title: 'Pressures', many: true, optional: true },
    fluids: { kind: 'fluid samples', title: 'Fluid samples', many: true, optional: true },
  },
  params,
  outputs: { contacts: { kind: 'contacts', title: 'Contacts' } },
  async run({ inputs, params: p, store }) {
    if (p.source === 'typed') {
      if (p.gocM >= p.owcM)
        throw new LithagonError(
          'contacts',
          `The gas–oil contact, ${(await shownUnits(store)).text(p.gocM, 'm')}, lies below the oil–water contact.`,
          {
            fix: 'Type the shallower one as gas–oil, or 0 where there is no gas.',
          },
        );
      return {
        contacts: { kind: 'contacts', gocM: p.gocM > 0 ? p.gocM : null, owcM: p.owcM, gocRange: null, owcRange: null },
      };
    }
    const oil = sampleValue(inputs.fluids, 'oil', 'density');
    const water = sampleValue(inputs.fluids, 'water', 'density');
    if (oil === null || water === null)
      throw new LithagonError(
        'contacts',
        'Contacts from pressures need the densities of oil and water from fluid samples.',
        { fix: 'Choose fluid samples, or type the contacts.' },
      );
    // a pressure that has only a measured depth takes its TVDSS from its well's path
    const objects = await store.list();
    const points = inputs.pressures.flatMap((t) => pressurePoints(objects, t));
    const fit = contactsFromPressures(points, { gas: sampleValue(inputs.fluids, 'gas', 'density'), oil, water });
    if (!fit)
      throw new LithagonError('contacts', `${points.length} pressures are too few to find contacts from.`, {
        fix: 'Choose more pressures, or type the contacts.',
      });
    return {
      contacts: {
        kind: 'contacts',
        gocM: fit.goc,
        owcM: fit.owc,
        gocRange: fit.gocRange,
        owcRange: fit.owcRange,
        misfitPa: fit.rms,
      },
    };
  },
});
