import { bodyMesh } from '../../attributes/bodySurface.ts';
import { cornersOf, toMap } from '../../earth/binGrid.ts';
import { type Bodies, domainUnit } from '../../earth/objects.ts';
import type { Out } from '../../files/out/out.ts';
import { csv, round } from '../../files/out/rows.ts';
import { polyData } from '../../formats/vtk/write.ts';
import { runsOf } from '../../project/bodies.ts';
import { defineKind } from '../define.ts';

/** Surfaces of all bodies; elevations are negative depths or times, and the number of the body stands beside as point data. */
async function bodiesVtk({ store, map }: Out, object: Bodies): Promise<Uint8Array[]> {
  const { binGrid, vertical } = object;
  const points: number[] = [];
  const numbers: number[] = [];
  const corners: number[] = [];
  for (const [body, runs] of await runsOf(store, object)) {
    const { positions, triangles } = bodyMesh(runs);
    const first = numbers.length;
    for (let n = 0; n < positions.length; n += 3) {
      const [x, y] = toMap(binGrid, positions[n], positions[n + 1]);
      points.push(x * map.scale, y * map.scale, -(vertical.first + positions[n + 2] * vertical.step));
      numbers.push(body);
    }
    for (const t of triangles) corners.push(first + t);
  }
  return polyData(Float32Array.from(points), [{ name: 'body', values: Float32Array.from(numbers) }], {
    name: 'Polys',
    connectivity: Int32Array.from(corners),
    offsets: Int32Array.from({ length: corners.length / 3 }, (_, n) => 3 * (n + 1)),
  });
}

export const bodies = defineKind<Bodies>({
  title: 'Bodies',
  plural: 'Bodies',
  facts: ({ bodies: all }, units) => [
    { label: 'Bodies', value: String(all.length) },
    ...(all[0]
      ? [
          { label: 'Largest', value: `${(all[0].volumeM3 / 1e6).toFixed(2)} million m³` },
          ...(all[0].edgeM !== undefined
            ? [
                {
                  label: 'Its edge',
                  value: `${units.text(all[0].edgeM, 'm', 0)}, ± ${units.text((all[0].spreadM ?? 0) / 2, 'm', 0)}`,
                },
              ]
            : []),
          ...(all[0].chance !== undefined
            ? [{ label: 'As flat by chance', value: `${(100 * all[0].chance).toFixed(all[0].chance < 0.1 ? 1 : 0)} %` }]
            : []),
        ]
      : []),
  ],
  aside: ({ bodies: all }) => (all.length === 1 ? '1 body' : `${all.length} bodies`),
  moved: (object, { binGrid }) => ({ ...object, binGrid: binGrid(object.binGrid) }),
  places: ({ binGrid }) => (binGrid.local ? [] : cornersOf(binGrid)),
  formats: {
    csv: {
      title: 'CSV, a row a run',
      write: csv(async (object: Bodies, { store, xy, at }) => {
        const { binGrid, vertical } = object;
        const unit = domainUnit(object.domain);
        const rows: unknown[][] = [];
        for (const [body, { i, j, from, to }] of await runsOf(store, object))
          for (let n = 0; n < i.length; n++) {
            const [x, y] = toMap(binGrid, i[n], j[n]);
            const z = (k: number) => round(vertical.first + k * vertical.step, 3);
            rows.push([body, at(x), at(y), z(from[n]), z(to[n] - 1)]);
          }
        return [['body', ...xy, `top_${unit}`, `base_${unit}`], rows];
      }),
    },
    vtp: { title: 'VTK surface', write: bodiesVtk },
  },
});
