import { cornersOf } from '../../earth/binGrid.ts';
import type { Units } from '../../earth/display.ts';
import type { Volume } from '../../earth/objects.ts';
import { segyOut, seismicHdf5, volumeVtk, volumeZarr } from '../../files/out/seismic.ts';
import { defineKind, fixed } from '../define.ts';
import { quantityText, samplesText } from '../words.ts';

function polarityOf({ polarity }: Volume): string {
  if (!polarity) return 'not declared';
  return polarity === 'harder-positive' ? '+ is harder' : '− is harder';
}

function factsOf(object: Volume, units: Units) {
  const { binGrid: l, statistics: s, traces: t, layouts } = object;
  const span = (a: typeof l.inline) =>
    `${a.first} to ${a.first + a.step * (a.count - 1)}${a.step === 1 ? '' : ` by ${a.step}`} (${a.count})`;
  const shown = (value: number) => units.to(value, object.unit).toPrecision(4).replace('-', '−');
  return [
    { label: 'Quantity', value: quantityText(object, units) },
    ...(object.quantity === 'amplitude' ? [{ label: 'Polarity', value: polarityOf(object) }] : []),
    { label: 'Inlines', value: span(l.inline) },
    { label: 'Crosslines', value: span(l.crossline) },
    {
      label: 'Bin',
      value: `${fixed(units.to(Math.hypot(...l.perCrossline), 'm'), 2)} × ${units.text(Math.hypot(...l.perInline), 'm', 2)}`,
    },
    ...(l.local ? [{ label: 'Place', value: 'not on the map yet: a grid of its own' }] : []),
    { label: 'Samples', value: samplesText(object, units) },
    { label: 'Range', value: `${shown(s.min)} to ${shown(s.max)}, rms ${shown(s.rms)}` },
    ...(layouts
      ? []
      : [{ label: 'Kept', value: 'live: worked out where it is looked at; its range is that of a few lines' }]),
    ...(layouts?.inline.scaled
      ? [{ label: 'Kept in', value: `16 bits, to ${(layouts.inline.scaled.factor / 2).toPrecision(3)}` }]
      : []),
    { label: 'Traces', value: `${t.live} live, ${t.missing} missing, ${t.duplicate} duplicate` },
  ];
}

export const volume = defineKind<Volume>({
  title: 'Volume',
  plural: 'Volumes',
  facts: factsOf,
  aside: ({ quantity, layouts }) => (layouts ? quantity : `${quantity}, live`),
  moved: (object, { binGrid }) => ({ ...object, binGrid: binGrid(object.binGrid) }),
  places: ({ binGrid }) => (binGrid.local ? [] : cornersOf(binGrid)),
  formats: {
    sgy: { title: 'SEG-Y', write: segyOut },
    vti: { title: 'VTK image', write: volumeVtk },
    h5: { title: 'HDF5', write: seismicHdf5 },
    'zarr.zip': { title: 'Zarr v3, zipped', write: volumeZarr },
  },
});
