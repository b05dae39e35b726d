import { CHANNELS, mixed, partOf } from '../../attributes/blend.ts';
import { crosslineAt, inlineAt, toMap } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { Blend, QuantityMap } from '../../earth/objects.ts';
import type { Out } from '../../files/out/out.ts';
import { plain, round } from '../../files/out/rows.ts';
import { csvText } from '../../formats/csv/write.ts';
import { channelsOf } from '../../project/blends.ts';
import { readWhole } from '../../storage/arrays.ts';
import { defineKind } from '../define.ts';

const figure = (v: number) => String(Number(v.toPrecision(4)));

/** Of maps a row a bin, with what each channel has there and the colour that it gives; of volumes the channels themselves. */
async function blendCsv({ store, map }: Out, blend: Blend): Promise<string> {
  const channels = channelsOf(blend, await store.list());
  if (!channels)
    throw new LithagonError('input', `What ${blend.name} is made of is not in the project any more.`, {
      object: blend.name,
      fix: 'Undo the removal, or make the blend again.',
    });
  const held = CHANNELS.flatMap((channel) => {
    const [of, ends] = [channels[channel], blend[channel]];
    return of && ends ? [{ channel, of, ends }] : [];
  });
  if (blend.of === 'volume')
    return csvText(
      ['channel', 'volume', 'absent_at', 'full_at'],
      held.map(({ channel, of, ends }) => [channel, of.name, ends.from, ends.to]),
    );
  const values = await Promise.all(held.map(({ of }) => readWhole(store, (of as QuantityMap).values)));
  const { binGrid } = channels.red as QuantityMap;
  const nj = binGrid.crossline.count;
  const hex = (n: number) => {
    const parts = held.map(({ ends }, c) => partOf(values[c][n], ends));
    const color = mixed(parts as unknown as [number, number, number], parts[3] ?? 1, blend);
    return (
      color &&
      `#${color
        .map((v) =>
          Math.round(255 * v)
            .toString(16)
            .padStart(2, '0'),
        )
        .join('')}`
    );
  };
  return csvText(
    [
      'inline',
      'crossline',
      `x_${map.unit}`,
      `y_${map.unit}`,
      ...held.map(({ channel, of }) => plain(`${channel} ${of.quantity}`, of.unit)),
      'color',
    ],
    Array.from(values[0], (_, n) => {
      const [i, j] = [Math.floor(n / nj), n % nj];
      const [x, y] = toMap(binGrid, i, j);
      return [
        inlineAt(binGrid, i),
        crosslineAt(binGrid, j),
        round(x * map.scale, 2),
        round(y * map.scale, 2),
        ...values.map((v) => round(v[n], 4)),
        hex(n),
      ];
    }),
  );
}

export const blend = defineKind<Blend>({
  title: 'Blend',
  plural: 'Blends',
  facts: (object) => [
    { label: 'Colours', value: object.axes },
    ...CHANNELS.flatMap((channel) => {
      const ends = object[channel];
      return ends ? [{ label: channel, value: `${figure(ends.from)} to ${figure(ends.to)}` }] : [];
    }),
  ],
  aside: ({ of }) => `of ${of}s`,
  moved: null,
  places: () => [],
  formats: { csv: { title: 'CSV', write: blendCsv } },
});
