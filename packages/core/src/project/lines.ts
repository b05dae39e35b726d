import { type BinGrid, sameBins, toIndex } from '../earth/binGrid.ts';
import type { EarthObject, Navigation, SeismicLine } from '../earth/objects.ts';

/** Where each trace of a 2D line lies: as its file says, else along its navigation; null where neither does. */
export function pathOfLine(objects: EarthObject[], line: SeismicLine): [number, number][] | null {
  if (line.path.length > 0) return line.path;
  const navigation = objects.find((o): o is Navigation => o.kind === 'navigation' && o.line === line.name);
  const numbers = navigation?.by === 'shotpoint' ? line.shotpoints : line.cdps;
  if (!navigation || navigation.points.length < 2 || !numbers) return null;
  const { points } = navigation;
  return spread(numbers).map((number) => {
    let n = 1;
    while (n < points.length - 1 && points[n][0] < number) n++;
    const [a, b] = [points[n - 1], points[n]];
    const f = b[0] === a[0] ? 0 : (number - a[0]) / (b[0] - a[0]);
    return [a[1] + f * (b[1] - a[1]), a[2] + f * (b[2] - a[2])];
  });
}

/** Numbers that stay the same over several traces, as shotpoints do, spread evenly to the next. */
function spread(numbers: number[]): number[] {
  const starts = numbers.map((_, n) => n).filter((n) => n === 0 || numbers[n] !== numbers[n - 1]);
  if (starts.length === numbers.length || starts.length < 2) return numbers;
  const out = [...numbers];
  starts.forEach((from, s) => {
    const to = starts[s + 1] ?? numbers.length;
    const last = starts[s - 1] ?? 0;
    const next = s + 1 < starts.length ? numbers[to] : numbers[from] + (numbers[from] - numbers[last]);
    const width = s + 1 < starts.length ? to - from : Math.max(to - from, from - last);
    for (let n = from; n < to; n++) out[n] = numbers[from] + ((next - numbers[from]) * (n - from)) / width;
  });
  return out;
}

/** Distance along a path to each of its points, metres. */
export function distances(path: [number, number][]): Float64Array {
  const out = new Float64Array(path.length);
  for (let n = 1; n < path.length; n++)
    out[n] = out[n - 1] + Math.hypot(path[n][0] - path[n - 1][0], path[n][1] - path[n - 1][1]);
  return out;
}

/** A place where a line crosses another: traces of both, between whole ones. */
export interface Crossing {
  line: string;
  trace: number;
  with: string;
  /** Trace of the other line; inline and crossline numbers where it is a volume. */
  at: { trace: number } | { inline: number; crossline: number };
  x: number;
  y: number;
}

/** Where 2D lines cross each other, and where they enter and leave the bins of a volume. */
export function crossings(objects: EarthObject[]): Crossing[] {
  const lines = objects.flatMap((o) => {
    const path = o.kind === 'seismic line' ? pathOfLine(objects, o) : null;
    return path ? [{ name: o.name, path }] : [];
  });
  const out: Crossing[] = [];
  for (const [n, one] of lines.entries())
    for (const other of lines.slice(n + 1))
      for (const { s, t, x, y } of meetings(one.path, other.path))
        out.push({ line: one.name, trace: s, with: other.name, at: { trace: t }, x, y });
  const seen: BinGrid[] = [];
  for (const volume of objects) {
    if (volume.kind !== 'volume') continue;
    // volumes of one survey are crossed once
    if (seen.some((l) => sameBins(l, volume.binGrid))) continue;
    seen.push(volume.binGrid);
    const { inline, crossline } = volume.binGrid;
    for (const { name, path } of lines) {
      const inside = path.map(([x, y]) => {
        const [i, j] = toIndex(volume.binGrid, x, y);
        return i >= 0 && j >= 0 && i <= inline.count - 1 && j <= crossline.count - 1;
      });
      inside.forEach((now, m) => {
        if (m === 0 || now === inside[m - 1]) return;
        const trace = now ? m : m - 1;
        const [x, y] = path[trace];
        const [i, j] = toIndex(volume.binGrid, x, y);
        out.push({
          line: name,
          trace,
          with: volume.name,
          at: {
            inline: inline.first + Math.round(i) * inline.step,
            crossline: crossline.first + Math.round(j) * crossline.step,
          },
          x,
          y,
        });
      });
    }
  }
  return out;
}

/** Where two paths cross, as fractional indexes of both. */
export function meetings(
  a: [number, number][],
  b: [number, number][],
): { s: number; t: number; x: number; y: number }[] {
  const out: { s: number; t: number; x: number; y: number }[] = [];
  const BLOCK = 32;
  const boxes = (path: [number, number][]) => {
    const list: { from: number; to: number; box: [number, number, number, number] }[] = [];
    for (let from = 0; from < path.length - 1; from += BLOCK) {
      const to = Math.min(path.length - 1, from + BLOCK);
      const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
      for (let n = from; n <= to; n++) {
        box[0] = Math.min(box[0], path[n][0]);
        box[1] = Math.min(box[1], path[n][1]);
        box[2] = Math.max(box[2], path[n][0]);
        box[3] = Math.max(box[3], path[n][1]);
      }
      list.push({ from, to, box });
    }
    return list;
  };
  const others = boxes(b);
  for (const p of boxes(a))
    for (const q of others) {
      if (p.box[0] > q.box[2] || q.box[0] > p.box[2] || p.box[1] > q.box[3] || q.box[1] > p.box[3]) continue;
      for (let m = p.from; m < p.to; m++)
        for (let n = q.from; n < q.to; n++) {
          const [dx, dy] = [a[m + 1][0] - a[m][0], a[m + 1][1] - a[m][1]];
          const [ex, ey] = [b[n + 1][0] - b[n][0], b[n + 1][1] - b[n][1]];
          const det = dx * ey - dy * ex;
          if (det === 0) continue;
          const [rx, ry] = [b[n][0] - a[m][0], b[n][1] - a[m][1]];
          const s = (rx * ey - ry * ex) / det;
          const t = (rx * dy - ry * dx) / det;
          // a crossing at a shared point counts once: segments own their beginning
          if (s < 0 || s >= 1 || t < 0 || t >= 1) continue;
          out.push({ s: m + s, t: n + t, x: a[m][0] + s * dx, y: a[m][1] + s * dy });
        }
    }
  return out;
}
