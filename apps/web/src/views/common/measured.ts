import {
  type Domain,
  depthOfTwt,
  domainUnit,
  type EarthObject,
  relationOf,
  twtOfDepth,
  type Units,
  type Well,
  windOf,
} from '@lithagon/core';
import type { MeasuredPoint } from '../../state/tool';
import { figure } from '../../ui/format';

/** What lies between two places. */
export interface Measurement {
  /** Along the map, metres. */
  acrossM: number;
  /** Degrees from north, of the second place as seen from the first. */
  azimuth: number;
  /** The second less the first: ms or m; null on a map of no vertical. */
  down: number | null;
  domain: Domain;
}

export function measured([ax, ay, av]: MeasuredPoint, [bx, by, bv]: MeasuredPoint, domain: Domain): Measurement {
  const [dx, dy] = [bx - ax, by - ay];
  return {
    acrossM: Math.hypot(dx, dy),
    azimuth: ((Math.atan2(dx, dy) * 180) / Math.PI + 360) % 360,
    down: av === null || bv === null ? null : bv - av,
    domain,
  };
}

/** Times and depths of the well nearest to a place, where one has both: by them times are depths, and depths times. */
function nearestTimes(objects: EarthObject[], x: number, y: number) {
  const wells = objects
    .filter((o): o is Well => o.kind === 'well')
    .flatMap((well) => {
      const relation = relationOf(objects, well.name);
      return relation ? [{ well, relation, far: Math.hypot(well.x - x, well.y - y) }] : [];
    });
  return wells.sort((a, b) => a.far - b.far)[0];
}

/** A measurement in words, a line each: distance and azimuth, thickness or interval time, dip, interval velocity. */
export function measuredWords(
  from: MeasuredPoint,
  to: MeasuredPoint,
  domain: Domain,
  objects: EarthObject[],
  units: Units,
): { label: string; value: string }[] {
  const m = measured(from, to, domain);
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const out = [
    { label: 'Distance', value: units.text(m.acrossM, 'm', 0) },
    {
      label: 'Azimuth',
      value: m.acrossM > 0 ? `${figure(m.azimuth, 0)}° (${windOf(dx, dy)})` : 'straight down',
    },
  ];
  if (m.down === null) return out;
  out.push({
    label: { twt: 'Interval time', depth: 'Thickness', age: 'Span of age' }[domain],
    value: units.text(Math.abs(m.down), domainUnit(domain), 1),
  });
  if (m.acrossM > 0)
    out.push({
      label: 'Dip',
      value:
        domain === 'depth'
          ? `${figure((Math.atan2(Math.abs(m.down), m.acrossM) * 180) / Math.PI, 1)}°, down to the ${m.down >= 0 ? windOf(dx, dy) : windOf(-dx, -dy)}`
          : `${figure(Math.abs(m.down) / (m.acrossM / 1000), 1)} ${domain === 'age' ? 'of age a km' : 'ms/km'}, down to the ${m.down >= 0 ? windOf(dx, dy) : windOf(-dx, -dy)}`,
    });
  const near = nearestTimes(objects, from[0], from[1]);
  if (domain !== 'age' && near && from[2] !== null && to[2] !== null) {
    const pair = (v: number): [twt: number, depth: number] =>
      domain === 'twt' ? [v, depthOfTwt(near.relation, v)] : [twtOfDepth(near.relation, v), v];
    const [a, b] = [pair(from[2]), pair(to[2])];
    const [time, depth] = [Math.abs(b[0] - a[0]), Math.abs(b[1] - a[1])];
    if (time > 0 && Number.isFinite(depth / time)) {
      out.push({
        label: domain === 'twt' ? 'Thickness' : 'Interval time',
        value: `${domain === 'twt' ? units.text(depth, 'm', 0) : units.text(time, 'ms', 1)} by ${near.well.name}`,
      });
      out.push({
        label: 'Interval velocity',
        value: `${units.text((2000 * depth) / time, 'm/s', 0)} by ${near.well.name}`,
      });
    }
  }
  return out;
}
