import { toast } from 'sonner';
import { openView } from '../state/dock';
import { type Tool, takeTool } from '../state/tool';
import { activeOf, changeSettings } from '../state/views';
import type { ShownWell } from '../views/common/survey';

/** Parts of a well's path that lead this far away from its head are part of a line through it, metres. */
const LEADS_AWAY_M = 50;

/** A well as a line passes it: its head, and along its path where that leads away. */
export function alongWell({ points }: ShownWell): [number, number][] {
  const [head] = points;
  if (!head) return [];
  const out: [number, number][] = [[head[0], head[1]]];
  for (const [x, y] of points) {
    const [lx, ly] = out[out.length - 1];
    if (Math.hypot(x - lx, y - ly) >= LEADS_AWAY_M) out.push([x, y]);
  }
  return out;
}

/** Corners of a line through places and wells: a deviated well is run along, its near end first. */
export function cornersThrough(
  line: { points: [number, number][]; names: (string | null)[] },
  wells: ShownWell[],
): [number, number][] {
  const out: [number, number][] = [];
  for (const [n, point] of line.points.entries()) {
    const well = wells.find((w) => w.well.name === line.names[n]);
    const way = well ? alongWell(well) : [point];
    const last = out[out.length - 1] ?? line.points[n + 1];
    const far = ([x, y]: [number, number]) => (last ? Math.hypot(x - last[0], y - last[1]) : 0);
    // from a line that comes, the nearer end; to one that goes, the nearer end comes last
    const turn = out.length > 0 ? far(way[way.length - 1]) < far(way[0]) : far(way[0]) < far(way[way.length - 1]);
    for (const p of turn ? [...way].reverse() : way) {
      const before = out[out.length - 1];
      if (!before || Math.hypot(p[0] - before[0], p[1] - before[1]) > 1) out.push(p);
    }
  }
  return out;
}

/** Run the section in front along a line of one's own. */
export function sectionAlong(tool: Extract<Tool, { kind: 'line' }>, wells: ShownWell[]): void {
  const points = cornersThrough(tool, wells);
  takeTool(null);
  if (points.length < 2) {
    toast('A line needs two corners. Nothing was changed.');
    return;
  }
  const names = tool.names.filter((n) => n !== null);
  changeSettings('section', activeOf('section'), { along: 'path', line: null, path: { points, names } });
  openView('section');
}

/** Begin a line for a section on the map. */
export function beginLine(): void {
  openView('map');
  takeTool({ kind: 'line', points: [], names: [] });
}
