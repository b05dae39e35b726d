import { crosslineAt, type Domain, domainUnit, inlineAt, toMap, type Volume } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useUnits } from '../../state/units';
import { domainAxis } from '../common/domains';
import css from '../common/view.module.css';
import { type SceneFrame, toScene } from './planes';

type Point = { x: number; y: number };

/** Numbers along the box: lines along its lower edges, TWT or depth along the upright one at the left; and north. */
export function SceneAxes(props: {
  volume: Volume;
  frame: SceneFrame;
  domain: Domain;
  size: { width: number; height: number };
  /** Where a place of the scene's axes stands on the screen. */
  project(p: [number, number, number]): Point;
}) {
  const { volume, frame, domain, size, project } = props;
  const units = useUnits();
  const { binGrid, vertical } = volume;
  const [ni, nj] = [binGrid.inline.count - 1, binGrid.crossline.count - 1];
  const last = vertical.first + vertical.step * (vertical.count - 1);
  const at = (i: number, j: number, v: number) => project(toScene(frame, ...toMap(binGrid, i, j), v));
  const unit = domainUnit(domain);
  /** Of two parallel edges that which lies lower on the screen. */
  const lower = (a: number, b: number, edge: (side: number) => [Point, Point]) => {
    const [p, q] = [edge(a), edge(b)];
    return p[0].y + p[1].y > q[0].y + q[1].y ? a : b;
  };
  const alongI = lower(0, nj, (j) => [at(0, j, last), at(ni, j, last)]);
  const alongJ = lower(0, ni, (i) => [at(i, 0, last), at(i, nj, last)]);
  const corners = [
    [0, 0],
    [0, nj],
    [ni, nj],
    [ni, 0],
  ] as const;
  const upright = [...corners].sort((a, b) => at(a[0], a[1], last).x - at(b[0], b[1], last).x)[0];
  const middle = at(ni / 2, nj / 2, last);
  const axis = (
    name: string,
    ticks: { text: string; point: Point }[],
    ends: [Point, Point],
    out: Point,
  ): React.ReactNode => {
    const length = Math.hypot(ends[1].x - ends[0].x, ends[1].y - ends[0].y);
    // numbers need room: along a short edge only its ends are told
    const every = Math.max(1, Math.ceil((ticks.length * 44) / Math.max(1, length)));
    const [mx, my] = [(ends[0].x + ends[1].x) / 2, (ends[0].y + ends[1].y) / 2];
    const away = Math.hypot(mx - out.x, my - out.y) || 1;
    const [ox, oy] = [(mx - out.x) / away, (my - out.y) / away];
    return (
      <g key={name}>
        {ticks
          .filter((_, n) => n % every === 0)
          .map(({ text, point }) => (
            <text key={text} x={point.x + 15 * ox} y={point.y + 11 * oy + 4} textAnchor="middle" className={css.tick}>
              {text}
            </text>
          ))}
        <text
          x={Math.max(30, Math.min(size.width - 30, mx + 42 * ox))}
          y={my + 30 * oy + 4}
          textAnchor="middle"
          style={{ fill: 'var(--ink)' }}
        >
          {name}
        </text>
      </g>
    );
  };
  const lineTicks = (first: number, to: number) =>
    scaleLinear([Math.min(first, to), Math.max(first, to)], [0, 1])
      .ticks(6)
      .filter(Number.isInteger);
  const indexOf = (number: number, plane: 'inline' | 'crossline') =>
    (number - binGrid[plane].first) / binGrid[plane].step;
  const heights = scaleLinear([units.to(vertical.first, unit), units.to(last, unit)], [vertical.first, last]);
  const north = project([0, 0, 0]);
  const tip = project([0, 0, -1]);
  const [nx, ny] = [tip.x - north.x, tip.y - north.y];
  const long = Math.hypot(nx, ny) || 1;
  // a foreshortened north is drawn shorter, down to half
  const reach = 15 * Math.max(0.5, Math.min(1, long / 60));
  return (
    <g>
      {axis(
        'Inline',
        lineTicks(inlineAt(binGrid, 0), inlineAt(binGrid, ni)).map((n) => ({
          text: String(n),
          point: at(indexOf(n, 'inline'), alongI, last),
        })),
        [at(0, alongI, last), at(ni, alongI, last)],
        middle,
      )}
      {axis(
        'Crossline',
        lineTicks(crosslineAt(binGrid, 0), crosslineAt(binGrid, nj)).map((n) => ({
          text: String(n),
          point: at(alongJ, indexOf(n, 'crossline'), last),
        })),
        [at(alongJ, 0, last), at(alongJ, nj, last)],
        middle,
      )}
      {axis(
        domainAxis(domain, units),
        heights.ticks(5).map((t) => ({ text: String(t), point: at(upright[0], upright[1], heights(t)) })),
        [at(upright[0], upright[1], vertical.first), at(upright[0], upright[1], last)],
        at(ni / 2, nj / 2, (vertical.first + last) / 2),
      )}
      <g transform={`translate(${size.width - 26} 30)`}>
        <path
          d={`M${(-nx / long) * reach} ${(-ny / long) * reach}L${(nx / long) * reach} ${(ny / long) * reach}`}
          stroke="var(--ink)"
          strokeWidth={1.6}
        />
        <circle cx={(nx / long) * reach} cy={(ny / long) * reach} r={2.6} fill="var(--ink)" />
        <text
          x={(nx / long) * (reach + 9)}
          y={(ny / long) * (reach + 9) + 4}
          textAnchor="middle"
          className={css.compass}
        >
          N
        </text>
      </g>
    </g>
  );
}
