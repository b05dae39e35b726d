import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import { during } from '../../numerics/stop.ts';
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
    {
      title: 'Gas–oil contact',
      description: 'Typed depth; 0 where there is no gas, the depth of the water where there is no oil.',
      unit: 'm TVDSS',
    },
    { min: 0, max: 9000, step: 0.5, initial: 0 },
  ),
  owcM: number(
    { title: 'Oil–water contact', description: 'Typed depth.', unit: 'm TVDSS' },
    { min: 0, max: 9000, step: 0.5, initial: 1000 },
  ),
  densityError: number(
    { title: 'Error of densities', description: 'Standard error of the fluid samples’ densities.', unit: 'kg/m³' },
    { min: 1, max: 100, step: 1, initial: 15 },
  ),
  pressureErrorKPa: number(
    {
      title: 'Error of pressures',
      description: 'Standard error of one pressure; more where they scatter more.',
      unit: 'kPa',
    },
    { min: 0.1, max: 200, step: 0.1, initial: 5 },
  ),
  water: choice(
    {
      title: 'Water that is not seen',
      description:
        'Where no pressure lies in water: give the deepest hydrocarbon, or meet the line of hydrostatic water.',
    },
    ['not assumed', 'hydrostatic'],
    'not assumed',
  ),
  surfaceKPa: number(
    { title: 'Water pressure at sea level', description: 'Where the line of hydrostatic water begins.', unit: 'kPa' },
    { min: 0, max: 5000, step: 1, initial: 101 },
  ),
});

export const contacts = defineStep({
  id: 'volumes.contacts',
  version: 2,
  stage: 'volumes',
  title: 'Fluid contacts',
  summary:
    'Where gas, oil and water meet, with the range that pressures and densities allow; or the deepest hydrocarbon.',
  formula: 'p = p₀ + ρ·g·z in each fluid; contacts where the lines meet, with what the data allow.',
  avoid: 'Where pressures come from blocks that are not joined: they share no line.',
  source: 'Pressure gradients after Dake (1978), Fundamentals of Reservoir Engineering',
  reach: 'global',
  inputs: {
    pressures: { kind: 'pressures', title: 'Pressures', many: true, optional: true },
    fluids: { kind: 'fluid samples', title: 'Fluid samples', many: true, optional: true },
  },
  params,
  outputs: { contacts: { kind: 'contacts', title: 'Contacts' } },
  async run({ inputs, params: p, store, signal, warn }) {
    if (p.source === 'typed') {
      if (p.gocM > p.owcM)
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
    const density = {
      gas: sampleValue(inputs.fluids, 'gas', 'density'),
      oil: sampleValue(inputs.fluids, 'oil', 'density'),
      water: sampleValue(inputs.fluids, 'water', 'density'),
    };
    if (density.gas === null && density.oil === null)
      throw new LithagonError(
        'contacts',
        'Contacts from pressures need the density of oil or gas from fluid samples.',
        {
          fix: 'Choose fluid samples, or type the contacts.',
        },
      );
    // a pressure that has only a measured depth takes its TVDSS from its well's path
    const objects = await store.list();
    const points = inputs.pressures.flatMap((t) => pressurePoints(objects, t));
    const knowledge = {
      density,
      densityError: p.densityError,
      pressureError: p.pressureErrorKPa * 1000,
      assumedWaterPa: p.water === 'hydrostatic' ? p.surfaceKPa * 1000 : undefined,
    };
    const fit = during(signal, () => contactsFromPressures(points, knowledge));
    if (!fit)
      throw new LithagonError('contacts', `${points.length} pressures are too few to find contacts from.`, {
        fix: 'Choose more pressures, or type the contacts.',
      });
    const { base, gasOil, fluids } = fit;
    if (!base)
      throw new LithagonError('contacts', 'The pressures are those of water alone: they show no contact.', {
        fix: 'Choose pressures of the hydrocarbons too, or type the contacts.',
      });
    const units = await shownUnits(store);
    if (base.kind === 'at or below')
      warn(
        `No water is seen in the pressures: the contact lies at or below the deepest ${fluids[fluids.length - 1]}, ${units.text(base.z, 'm', 1)} TVDSS. Volumes are those above it.`,
      );
    if (base.kind === 'assumed')
      warn(
        `No water is seen in the pressures: its line was assumed, from ${p.surfaceKPa} kPa at sea level with the density of the sample.`,
      );
    if (density.gas !== null && fluids[0] !== 'gas') warn('No gas is seen in the pressures.');
    const noOil = fluids[0] === 'gas' && !gasOil;
    const range = base.kind === 'at or below' ? null : base.range;
    return {
      contacts: {
        kind: 'contacts',
        gocM: noOil ? base.z : (gasOil?.z ?? null),
        owcM: base.z,
        fluids,
        base: base.kind,
        gocRange: noOil ? range : (gasOil?.range ?? null),
        owcRange: range,
        misfitPa: fit.rms,
      },
    };
  },
});
