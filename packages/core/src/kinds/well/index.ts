import type { Well } from '../../earth/objects.ts';
import { csv, round } from '../../files/out/rows.ts';
import { pathVtk } from '../../files/out/surface.ts';
import { pathOf } from '../../project/wells/wells.ts';
import { pointAtMd } from '../../wells/path.ts';
import { defineKind, fixed } from '../define.ts';

export const well = defineKind<Well>({
  title: 'Well',
  plural: 'Wells',
  facts: (object, units) => [
    { label: 'Head', value: `${fixed(object.x, 2)} E, ${fixed(object.y, 2)} N` },
    { label: 'Kelly bushing', value: `${units.text(object.kbM, 'm', 2)} above mean sea level` },
    ...(object.totalMdM ? [{ label: 'Total depth', value: units.text(object.totalMdM, 'm MD') }] : []),
    ...(object.status ? [{ label: 'Status', value: object.status }] : []),
  ],
  aside: ({ status }) => status ?? '',
  moved(object, { point }) {
    const [x, y] = point(object.x, object.y);
    return { ...object, x, y };
  },
  places: ({ x, y }) => [[x, y]],
  formats: {
    csv: {
      title: 'CSV of its path',
      write: csv(async (object, { store, xy, at }) => {
        const path = pathOf(await store.list(), object);
        const last = object.totalMdM ?? path.md[path.md.length - 1];
        const mds = [...new Set([...path.md, last])].filter((md) => md <= last);
        return [
          ['md_m', ...xy, 'tvd_m', 'tvdss_m'],
          mds.map((md) => {
            const p = pointAtMd(path, md);
            return [round(md, 3), at(p.x), at(p.y), round(p.tvdss + object.kbM, 3), round(p.tvdss, 3)];
          }),
        ];
      }),
    },
    vtp: { title: 'VTK path', write: pathVtk },
  },
});
