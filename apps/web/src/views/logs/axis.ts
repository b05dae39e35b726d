import { AXIS, type Panel, type WellBox } from './layout';
import type { Mark } from './marks';

/** Round numbers along a depth axis. */
export function ticks(from: number, to: number, height: number): number[] {
  const rough = ((to - from) / height) * 46;
  const power = 10 ** Math.floor(Math.log10(Math.max(1e-6, rough)));
  const step = [1, 2, 5, 10].map((f) => f * power).find((s) => s >= rough) ?? 10 * power;
  const out: number[] = [];
  for (let t = Math.ceil(from / step) * step; t <= to; t += step) out.push(t);
  return out;
}

/** Marks of a well's axis: its own depths, whatever it hangs on. */
export function axisMarks(well: WellBox, panel: Panel, unitOf: (v: number) => number, ink: string): Mark[] {
  const [from, to] = [panel.window[0] - well.hung, panel.window[1] - well.hung];
  const shown = [unitOf(from), unitOf(to)];
  return ticks(shown[0], shown[1], panel.height).map((t): Mark => {
    const y = panel.top + ((t - shown[0]) / (shown[1] - shown[0])) * panel.height;
    return {
      kind: 'text',
      x: well.left + AXIS - 5,
      y: y + 3.5,
      text: String(Math.round(t * 100) / 100),
      color: ink,
      size: 10,
      anchor: 'end',
    };
  });
}

/** Tops across a well's tracks. */
export function topMarks(well: WellBox, ink: { text: string; fault: string }): Mark[] {
  const left = well.left + AXIS;
  const right = well.left + well.width;
  return well.column.tops.flatMap((top): Mark[] => {
    const y = well.y(top.md);
    if (Number.isNaN(y)) return [];
    const cut = top.kind === 'fault cut';
    return [
      {
        kind: 'line',
        points: Float32Array.from([left, y, right, y]),
        color: cut ? ink.fault : ink.text,
        width: cut ? 1.6 : 1.1,
        dash: cut ? [6, 3] : undefined,
      },
    ];
  });
}

/** Where checkshots stand along the axis. */
export function checkshotMarks(well: WellBox, color: string): Mark[] {
  return well.column.checkshots.map(
    (md): Mark => ({ kind: 'dot', x: well.axis.left + well.axis.width - 2, y: well.y(md), r: 1.6, color }),
  );
}
