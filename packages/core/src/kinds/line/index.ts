import type { SeismicLine } from '../../earth/objects.ts';
import { segyOut, seismicHdf5 } from '../../files/out/seismic.ts';
import { distances } from '../../project/lines.ts';
import { counted, defineKind } from '../define.ts';
import { quantityText, samplesText } from '../words.ts';

export const line = defineKind<SeismicLine>({
  title: '2D line',
  plural: '2D lines',
  facts(object, units) {
    const path = distances(object.path);
    const ends = (values: number[]) => `${values[0]} to ${values[values.length - 1]}`;
    return [
      { label: 'Quantity', value: quantityText(object, units) },
      { label: 'Traces', value: String(object.cdps.length) },
      { label: 'CDP', value: ends(object.cdps) },
      ...(object.shotpoints ? [{ label: 'Shotpoint', value: ends(object.shotpoints) }] : []),
      {
        label: 'Length',
        value: path.length > 0 ? units.text(path[path.length - 1], 'm', 0) : 'from its navigation',
      },
      { label: 'Samples', value: samplesText(object, units) },
    ];
  },
  aside: ({ cdps }) => counted(cdps.length, 'trace'),
  moved: (object, { point }) => ({ ...object, path: object.path.map(([x, y]) => point(x, y)) }),
  places: ({ path }) => path,
  formats: {
    sgy: { title: 'SEG-Y', write: segyOut },
    h5: { title: 'HDF5', write: seismicHdf5 },
  },
});
