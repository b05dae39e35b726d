import type { SyntheticGather } from '../../earth/objects.ts';
import { csv, round } from '../../files/out/rows.ts';
import { readWhole } from '../../storage/arrays.ts';
import { counted, defineKind } from '../define.ts';

export const gather = defineKind<SyntheticGather>({
  title: 'Synthetic gather',
  plural: 'Synthetic gathers',
  facts: ({ well, anglesDeg, form }) => [
    { label: 'Well', value: well },
    { label: 'Angles', value: `${anglesDeg.join(', ')}°` },
    { label: 'Reflections', value: form },
  ],
  aside: ({ anglesDeg }) => counted(anglesDeg.length, 'angle'),
  moved: null,
  places: () => [],
  formats: {
    csv: {
      title: 'CSV',
      write: csv(async (object, { store }) => {
        const values = await readWhole(store, object.samples);
        const count = object.samples.shape[1];
        return [
          ['twt_ms', ...object.anglesDeg.map((a) => `at_${String(a).replace('.', '_')}_deg`)],
          Array.from({ length: count }, (_, k) => [
            round(object.firstMs + k * object.stepMs, 3),
            ...object.anglesDeg.map((_, n) => values[n * count + k]),
          ]),
        ];
      }),
    },
  },
});
