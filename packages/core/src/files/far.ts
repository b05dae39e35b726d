import { cornersOf } from '../earth/binGrid.ts';
import { unitsOf } from '../earth/display.ts';
import type { Around } from './context.ts';
import type { Sketch } from './report.ts';

/** Places nearer than this to what a project holds are never doubted, m. */
const NEAR_M = 50_000;

/** Map bounds of the surveys of a project, or of its wells where it has no survey; null where it has neither. */
function boundsOf({ objects }: Around): [west: number, south: number, east: number, north: number] | null {
  const surveys = objects.flatMap((o) => (o.kind === 'volume' && !o.binGrid.local ? cornersOf(o.binGrid) : []));
  const wells = objects.flatMap((o): [number, number][] => (o.kind === 'well' ? [[o.x, o.y]] : []));
  // one well that was put wrong must not make all others near
  const places = surveys.length > 0 ? surveys : wells;
  if (places.length === 0) return null;
  const bounds: [number, number, number, number] = [...places[0], ...places[0]];
  for (const [x, y] of places) {
    bounds[0] = Math.min(bounds[0], x);
    bounds[1] = Math.min(bounds[1], y);
    bounds[2] = Math.max(bounds[2], x);
    bounds[3] = Math.max(bounds[3], y);
  }
  return bounds;
}

/**
 * A sentence where a file lies so far from the survey or the wells of the project that its system, unit or columns are
 * in doubt: further than fifty kilometres and than five times the project's width.
 */
export function farFrom(sketch: Sketch, around: Around): string | null {
  const bounds = boundsOf(around);
  if (!bounds) return null;
  const [west, south, east, north] = bounds;
  const limit = Math.max(NEAR_M, 5 * Math.hypot(east - west, north - south));
  const away = ([x, y]: [number, number]) =>
    Math.hypot(Math.max(west - x, 0, x - east), Math.max(south - y, 0, y - north));
  // a line is as near as its nearest point: a coast is long
  const shapes = [
    ...sketch.lines.map((line) => line.reduce((least, p) => Math.min(least, away(p)), Number.POSITIVE_INFINITY)),
    ...sketch.points.map((p) => away([p.x, p.y])),
  ].filter(Number.isFinite);
  const far = shapes.filter((d) => d > limit);
  if (far.length === 0) return null;
  const units = unitsOf(around.frame);
  const most =
    units.to(
      far.reduce((a, b) => Math.max(a, b)),
      'm',
    ) / 1000;
  const unit = units.of('m') === 'm' ? 'km' : `thousand ${units.of('m')}`;
  const which = far.length === shapes.length ? 'It lies' : `${far.length} of its ${shapes.length} places lie`;
  return `${which} up to ${most.toFixed(0)} ${unit} from what the project holds: check its coordinate system, unit and columns.`;
}
