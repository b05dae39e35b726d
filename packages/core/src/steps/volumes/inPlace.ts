import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import { sameBins } from '../../earth/lattice.ts';
import { insideRings } from '../../numerics/rings.ts';
import { sampleValue } from '../../project/wells/fluids.ts';
import { zoneAverages } from '../../project/wells/zoneAverages.ts';
import { readWhole, writeWhole } from '../../storage/arrays.ts';
import { inPlace as computeInPlace, hydrocarbonThickness, type Rock } from '../../volumes/inPlace.ts';
import { choice, defineStep, number, text, wellsInput } from '../define.ts';

const fraction = (title: string, description: string, initial: number) =>
  number({ title, description, unit: 'fraction' }, { min: 0, max: 1, step: 0.01, initial });

const params = z.object({
  zone: text({ title: 'Zone', description: 'What the zone is called in the table; its two tops where empty.' }, ''),
  averages: choice(
    {
      title: 'Rock',
      description: 'Net-to-gross, porosity and saturation: typed below, or averaged over the zone in the wells.',
    },
    ['well averages', 'typed'],
    'well averages',
  ),
  topName: text({ title: 'Zone from', description: 'Top of the zone as the wells name it.', names: 'top' }, ''),
  baseName: text({ title: 'Zone to', description: 'Base of the zone as the wells name it.', names: 'top' }, ''),
  mostShale: fraction('Most shale', 'Rock with more shale than this is not net.', 0.5),
  leastPorosity: fraction('Least porosity', 'Rock with less porosity than this is not net.', 0.1),
  grainDensity: number(
    { title: 'Grain density', description: 'Of the reservoir’s grains, for porosity from density.', unit: 'kg/m³' },
    { min: 2000, max: 3200, step: 5, initial: 2650 },
  ),
  waterOhmM: number(
    {
      title: 'Brine resistivity',
      description: 'Used where no water-bearing rock in the wells tells it.',
      unit: 'ohm·m',
    },
    { min: 0.005, max: 10, step: 0.005, initial: 0.05 },
  ),
  netToGross: fraction('Net-to-gross', 'Part of the rock that is reservoir.', 0.75),
  porosity: fraction('Porosity', 'Of the net rock.', 0.27),
  waterInOil: fraction('Water saturation, oil zone', 'Of the net rock’s pores.', 0.35),
  waterInGas: fraction('Water saturation, gas zone', 'Of the net rock’s pores.', 0.25),
  oilFactor: number(
    { title: 'Oil formation volume factor', description: 'Used where no fluid sample gives one.', unit: 'm³/m³' },
    { min: 1, max: 4, step: 0.01, initial: 1.2 },
  ),
  gasFactor: number(
    { title: 'Gas formation volume factor', description: 'Used where no fluid sample gives one.', unit: 'm³/m³' },
    { min: 0.001, max: 0.1, step: 0.0005, initial: 0.01 },
  ),
});

/** US stock-tank barrels and standard cubic feet in a cubic metre. */
const STB = 1 / 0.158987294928;
const SCF = 1 / 0.028316846592;

export const inPlace = defineStep({
  id: 'volumes.inPlace',
  version: 3,
  stage: 'volumes',
  title: 'Volumes in place',
  summary: 'Rock, pore space, oil and gas of a zone between two depth surfaces, inside an area, above its contacts.',
  source: 'Cells cut by contacts in proportion; Archie (1942), Transactions of the AIME 146, 54–62',
  reach: 'global',
  inputs: {
    top: { kind: 'horizon', title: 'Top', domain: 'depth' },
    base: { kind: 'horizon', title: 'Base', domain: 'depth' },
    area: { kind: 'polygon', title: 'Area' },
    contacts: { kind: 'contacts', title: 'Contacts' },
    wells: wellsInput(['directional surveys', 'logs', 'tops'], { optional: true }),
    fluids: { kind: 'fluid samples', title: 'Fluid samples', many: true, optional: true },
  },
  params,
  outputs: {
    volumes: { kind: 'result table', title: 'Volumes' },
    thickness: { kind: 'map', title: 'Hydrocarbon thickness' },
  },
  async run({ inputs, around, params: p, store, idFor, warn }) {
    const { top, base, area } = inputs;
    if (!area.closed)
      throw new LithagonError('area', `${area.name} is a line, which holds no area.`, {
        object: area.name,
        fix: 'Choose a closed outline.',
      });
    if (!sameBins(top.lattice, base.lattice))
      throw new LithagonError('lattice', `${top.name} and ${base.name} lie on different grids.`, {
        object: base.name,
        fix: 'Make both from the same survey.',
      });
    const { gocM: goc, owcM: owc, base: kind } = inputs.contacts;
    if (kind === 'at or below')
      warn('No contact was seen: the volumes are those above the deepest hydrocarbon, and a low case.');
    let rock: Pick<Rock, 'netToGross' | 'porosity' | 'waterInOil' | 'waterInGas'> = p;
    if (p.averages === 'well averages') {
      const density = {
        grain: p.grainDensity,
        gas: sampleValue(inputs.fluids, 'gas', 'density') ?? 150,
        oil: sampleValue(inputs.fluids, 'oil', 'density') ?? 800,
        brine: sampleValue(inputs.fluids, 'water', 'density') ?? 1030,
      };
      const found = await zoneAverages(store, around, inputs.wells, { ...p, density, contacts: { goc, owc } });
      if (!found)
        throw new LithagonError(
          'averages',
          `No well given has gamma ray, density and resistivity between “${p.topName}” and “${p.baseName}”.`,
          { fix: 'Choose wells that do, or type net-to-gross, porosity and saturations.' },
        );
      rock = {
        netToGross: found.netToGross,
        porosity: found.porosity,
        waterInOil: found.waterInOil ?? p.waterInOil,
        waterInGas: found.waterInGas ?? p.waterInGas,
      };
      if (found.waterInOil === null) warn('No well meets net rock with oil; its typed water saturation was used.');
      if (found.waterInGas === null && goc !== null)
        warn('No well meets net rock with gas; its typed water saturation was used.');
      warn(
        `Averages over ${found.wells.join(', ')}; brine of ${found.waterOhmM.toFixed(3)} ohm·m from ${found.waterFrom}.`,
      );
    }
    const whole: Rock = {
      netToGross: rock.netToGross,
      porosity: rock.porosity,
      waterInOil: rock.waterInOil,
      waterInGas: rock.waterInGas,
      oilFactor: sampleValue(inputs.fluids, 'oil', 'factor') ?? p.oilFactor,
      gasFactor: sampleValue(inputs.fluids, 'gas', 'factor') ?? p.gasFactor,
    };
    const surfaces = [await readWhole(store, top.values), await readWhole(store, base.values)] as const;
    const inside = insideRings(area.rings);
    const v = computeInPlace(top.lattice, ...surfaces, inside, { goc, owc }, whole);
    const thick = hydrocarbonThickness(top.lattice, ...surfaces, inside, { goc, owc }, whole);
    const { inline, crossline } = top.lattice;
    if (v.missing > 0.5) warn(`${v.missing.toFixed(0)} bins inside the area lack a top or base and were left out.`);
    return {
      volumes: {
        kind: 'result table',
        columns: [
          { name: 'Quantity', unit: '' },
          { name: 'Metric', unit: '' },
          { name: 'Unit', unit: '' },
          { name: 'Field', unit: '' },
          { name: 'Field unit', unit: '' },
        ],
        rows: [
          ...(goc === owc ? [] : [['Gas–oil contact', goc, 'm TVDSS', goc === null ? null : goc / 0.3048, 'ft TVDSS']]),
          [goc === owc ? 'Gas–water contact' : 'Oil–water contact', owc, 'm TVDSS', owc / 0.3048, 'ft TVDSS'],
          ['Net-to-gross', whole.netToGross, '', null, ''],
          ['Porosity', whole.porosity, '', null, ''],
          ['Water saturation, oil zone', whole.waterInOil, '', null, ''],
          ['Water saturation, gas zone', whole.waterInGas, '', null, ''],
          ['Oil formation volume factor', whole.oilFactor, 'm³/m³', whole.oilFactor, 'rb/stb'],
          ['Gas formation volume factor', whole.gasFactor, 'm³/m³', (whole.gasFactor * STB) / SCF, 'rb/scf'],
          ['Gross rock', v.grossRock, 'm³', v.grossRock / 1233.48183754752, 'acre-ft'],
          ['Net rock', v.net, 'm³', v.net / 1233.48183754752, 'acre-ft'],
          ['Pore', v.pore, 'm³', v.pore / 1233.48183754752, 'acre-ft'],
          ['Hydrocarbon pore', v.hydrocarbonPore, 'm³', v.hydrocarbonPore / 1233.48183754752, 'acre-ft'],
          ['Oil in place', v.oil, 'Sm³', v.oil * STB, 'stb'],
          ['Gas in place', v.gas, 'Sm³', v.gas * SCF, 'scf'],
        ],
        records: [
          {
            area: area.name,
            zone: p.zone || `${p.topName} to ${p.baseName}`,
            contacts: { goc_m: goc, owc_m: owc },
            grossRockVolume_m3: v.grossRock,
            netRockVolume_m3: v.net,
            poreVolume_m3: v.pore,
            hydrocarbonPoreVolume_m3: v.hydrocarbonPore,
            oilInPlace_sm3: v.oil,
            gasInPlace_sm3: v.gas,
          },
        ],
      },
      thickness: {
        kind: 'map',
        lattice: top.lattice,
        quantity: 'hydrocarbon thickness',
        unit: 'm',
        values: await writeWhole(store, `${idFor('thickness')}/values`, [inline.count, crossline.count], thick, [
          'inline',
          'crossline',
        ]),
        range: [0, thick.reduce((most, t) => (t > most ? t : most), 0)],
      },
    };
  },
});
