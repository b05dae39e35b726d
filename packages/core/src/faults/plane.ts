import type { Fault } from '../earth/objects.ts';
import { metresOfStep, type Orientation, ofPole } from './orientation.ts';
import { meshOfSticks } from './surface.ts';

/**
 * How a fault lies on the whole and how large it is: the mean of its triangles by area. One that was found in a volume says so itself,
 * as long as nobody has changed it; null where it has no surface.
 * @param velocity m/s, by which the time of one in TWT becomes depth
 */
export function planeOfFault(
  { sticks, domain, found }: Pick<Fault, 'sticks' | 'domain' | 'found'>,
  velocity: number,
): (Orientation & { areaM2: number }) | null {
  if (found) return { dip: found.dip, azimuth: found.azimuth, areaM2: found.areaM2 };
  const { points, triangles } = meshOfSticks(sticks);
  const metres = metresOfStep(domain, 1, velocity);
  const sum: [number, number, number] = [0, 0, 0];
  let area = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((n) => {
      const at = 3 * triangles[t + n];
      return [points[at], points[at + 1], points[at + 2] * metres];
    });
    const [u, v] = [
      [b[0] - a[0], b[1] - a[1], b[2] - a[2]],
      [c[0] - a[0], c[1] - a[1], c[2] - a[2]],
    ];
    const normal = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const size = Math.hypot(...normal);
    area += size / 2;
    // normals of one surface point to one side
    const sign = sum[0] * normal[0] + sum[1] * normal[1] + sum[2] * normal[2] < 0 ? -1 : 1;
    for (let n = 0; n < 3; n++) sum[n] += sign * normal[n];
  }
  return area > 0 ? { ...ofPole(sum), areaM2: area } : null;
}
