import { z } from 'zod';
import { sameBins } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import { insideRings } from '../../numerics/rings.ts';
import { during } from '../../numerics/stop.ts';
import { sampleValue } from '../../project/wells/fluids.ts';
import { type Leg, type LegAverage, type ZoneAverages, zoneAverages } from '../../project/wells/zoneAverages.ts';
import { readWhole, writeWhole } from '../../storage/arrays.ts';
import { inPlace as computeInPlace, hydrocarbonThickness, type LegRock, type Rock } from '../../volumes/inPlace.ts';
import { choice, defineStep, number, text, wellsInput } from '../define.ts';

const fraction = (title: string, description: string, initial: number) =>
  number({ title, description, unit: 'fraction' }, { min: 0, max: 1, step: 0.01, initial });

const params = z.object({
  zone: text({ title: 'Zone', description: 'What the zone is called in the table; its two tops where empty.' }, ''),
  averages: choice(
    {
      title: 'Rock',
      description:
        'Net-to-gross, porosity and saturation: typed below, or averaged in each fluid’s leg over the curves that were interpreted in the wells.',
    },
    ['well averages', 'typed'],
    'well averages',
  ),
  topName: text({ title: 'Zone from', description: 'Top of the zone as the wells name it.', names: 'top' }, ''),
  baseName: text({ title: 'Zone to', description: 'Base of the zone as the wells name it.', names: 'top' }, ''),
  netBy: choice(
    {
      title: 'Net rock',
      description:
        'By the net flag that was made in the wells, or by the cutoffs below; these also where a well has no flag.',
    },
    ['net flag', 'cutoffs'],
    'net flag',
  ),
  mostShale: fraction('Most shale', 'Rock with more shale than this is not net.', 0.4),
  leastPorosity: fraction('Least porosity', 'Rock with less porosity than this is not net.', 0.08),
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

/** US stock-tank barrels in a cubic metre. */
const STB = 1 / 0.158987294928;
/**
 * Standard cubic feet, at 60 °F and 14.696 psia, of a cubic metre of gas at 15 °C and 101.325 kPa: an ideal gas takes more
 * room where it is warmer.
 */
const SCF = (((1 / 0.028316846592) * (459.67 + 60)) / 1.8 / 288.15) * (101.325 / (14.696 * 6.894757293168));

type Row = (string | number | null)[];

/** What has no number shows none; rows are of one width. */
const padded = (rows: Row[]): Row[] =>
  rows.map((row) =>
    [...row, ...Array<null>(Math.max(0, 5 - row.length)).fill(null)].map((v) => (Number.isNaN(v) ? null : v)),
  );

/** Averages of a leg, each with its standard deviation between wells where there are several. */
function rockRows(leg: Leg, rock: LegRock, found: ZoneAverages | null): Row[] {
  const own = found?.legs[leg];
  const rows = (title: string, value: number, spread: number | null | undefined): Row[] => [
    [`${title}, ${leg} leg`, value, ''],
    ...(spread == null ? [] : [[`± between wells`, spread, '']]),
  ];
  return [
    ...rows('Net-to-gross', rock.netToGross, own?.netToGross.spread),
    ...rows('Porosity', rock.porosity, own?.porosity.spread),
    ...rows('Water saturation', rock.water, own?.water.spread),
  ];
}

/** A volume with what the spread between wells makes of it. */
function volumeRows(title: string, value: number, units: [string, number, string], part: number): Row[] {
  const [unit, factor, other] = units;
  const row = (name: string, v: number): Row => [name, v, unit, v * factor, other];
  return [
    row(title, value),
    ...(Number.isFinite(part) && value > 0 ? [row('± by the spread of wells', value * part)] : []),
  ];
}

/** What one well has to say of one leg. */
const wellRows = ({ well, leg, grossM, netToGross, porosity, water }: LegAverage): Row[] => [
  [`${well}, ${leg} leg: thickness`, grossM, 'm', grossM / 0.3048, 'ft'],
  [`${well}, ${leg} leg: net-to-gross`, netToGross, ''],
  [`${well}, ${leg} leg: porosity`, porosity, ''],
  [`${well}, ${leg} leg: water saturation`, water, ''],
];

/** How far apart wells put a volume, as a part of it: their averages taken as independent; NaN where it is not known. */
function relativeSpread(leg: Leg, found: ZoneAverages | null): number {
  const own = found?.legs[leg];
  if (!own || own.netToGross.spread === null || own.porosity.spread === null || own.water.spread === null)
    return Number.NaN;
  return Math.hypot(
    own.netToGross.spread / own.netToGross.value,
    own.porosity.spread / own.porosity.value,
    own.water.spread / (1 - own.water.value),
  );
}

export const inPlace = defineStep({
  id: 'volumes.inPlace',
  version: 4,
  stage: 'volumes',
  title: 'Volumes in place',
  summary: 'Rock, pore space, oil and gas of a zone between two depth surfaces, inside an area, above its contacts.',
  formula: 'N = A·h·NTG·φ·(1 − Sʷ)/B, summed over bins above the contact, inside the area.',
  avoid: 'As one number: tell the range that contacts, area and rock allow.',
  source:
    'Cells cut by contacts in proportion; averages as Worthington & Cosentino (2005), SPE Reservoir Evaluation & Engineering 8, 276–290',
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
  async run({ inputs, around, params: p, store, signal, idFor, warn }) {
    const { top, base, area } = inputs;
    if (!area.closed)
      throw new LithagonError('area', `${area.name} is a line, which holds no area.`, {
        object: area.name,
        fix: 'Choose a closed outline.',
      });
    if (!sameBins(top.binGrid, base.binGrid))
      throw new LithagonError('binGrid', `${top.name} and ${base.name} lie on different grids.`, {
        object: base.name,
        fix: 'Make both from the same survey.',
      });
    const { gocM: goc, owcM: owc, base: kind } = inputs.contacts;
    if (kind === 'at or below')
      warn('No contact was seen: the volumes are those above the deepest hydrocarbon, and a low case.');
    const typed = (water: number): LegRock => ({ netToGross: p.netToGross, porosity: p.porosity, water });
    const legs: Record<Leg, LegRock> = { gas: typed(p.waterInGas), oil: typed(p.waterInOil) };
    let found: ZoneAverages | null = null;
    if (p.averages === 'well averages') {
      found = await zoneAverages(store, around, inputs.wells, {
        topName: p.topName,
        baseName: p.baseName,
        contacts: { goc, owc },
        cutoffs: p,
        flags: p.netBy === 'net flag',
      });
      for (const note of found.notes) warn(note);
      if (!found.legs.gas && !found.legs.oil)
        throw new LithagonError(
          'averages',
          `No well given has net rock above the contacts between “${p.topName}” and “${p.baseName}” in its interpreted curves.${found.notes.length > 0 ? ` ${found.notes.join(' ')}` : ''}`,
          {
            fix: 'Make shale volume, porosity, water saturation and net rock in the wells first, or type the averages.',
          },
        );
      for (const leg of ['gas', 'oil'] as const) {
        if (leg === 'gas' ? goc === null : goc === owc) continue;
        const own = found.legs[leg];
        if (own)
          legs[leg] = {
            netToGross: own.netToGross.value,
            porosity: own.porosity.value,
            water: own.water.value,
          };
        else {
          // rock is rock, whatever fills it; its saturation is not
          const other = found.legs[leg === 'gas' ? 'oil' : 'gas'];
          if (other) legs[leg] = { ...legs[leg], netToGross: other.netToGross.value, porosity: other.porosity.value };
          warn(
            `No well meets net rock with ${leg}: net-to-gross and porosity are those of the other leg, and its typed water saturation was used.`,
          );
        }
      }
    }
    const whole: Rock = {
      ...legs,
      oilFactor: sampleValue(inputs.fluids, 'oil', 'factor') ?? p.oilFactor,
      gasFactor: sampleValue(inputs.fluids, 'gas', 'factor') ?? p.gasFactor,
    };
    const surfaces = [await readWhole(store, top.values), await readWhole(store, base.values)] as const;
    const inside = insideRings(area.rings);
    const zone = [top.binGrid, ...surfaces, inside, { goc, owc }, whole] as const;
    const v = during(signal, () => computeInPlace(...zone));
    const thick = during(signal, () => hydrocarbonThickness(...zone));
    const { inline, crossline } = top.binGrid;
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
        rows: padded([
          ...(goc === owc ? [] : [['Gas–oil contact', goc, 'm TVDSS', goc === null ? null : goc / 0.3048, 'ft TVDSS']]),
          [goc === owc ? 'Gas–water contact' : 'Oil–water contact', owc, 'm TVDSS', owc / 0.3048, 'ft TVDSS'],
          ...(['gas', 'oil'] as const)
            .filter((leg) => (leg === 'gas' ? goc !== null : goc !== owc))
            .flatMap((leg) => rockRows(leg, whole[leg], found)),
          ['Oil formation volume factor', whole.oilFactor, 'm³/m³', whole.oilFactor, 'rb/stb'],
          ['Gas formation volume factor', whole.gasFactor, 'm³/m³', (whole.gasFactor * STB) / SCF, 'rb/scf'],
          ['Gross rock', v.grossRock, 'm³', v.grossRock / 1233.48183754752, 'acre-ft'],
          ['Net rock', v.net, 'm³', v.net / 1233.48183754752, 'acre-ft'],
          ['Pore', v.pore, 'm³', v.pore / 1233.48183754752, 'acre-ft'],
          ['Hydrocarbon pore', v.hydrocarbonPore, 'm³', v.hydrocarbonPore / 1233.48183754752, 'acre-ft'],
          ...volumeRows('Oil in place', v.oil, ['Sm³', STB, 'stb'], relativeSpread('oil', found)),
          ...volumeRows('Gas in place', v.gas, ['Sm³', SCF, 'scf'], relativeSpread('gas', found)),
          ...(found?.wells ?? []).flatMap(wellRows),
        ]),
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
        binGrid: top.binGrid,
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
