import { inRing } from '../crossplot/points.ts';
import { LithagonError } from '../earth/errors.ts';
import type { PlotClass } from '../earth/objects.ts';

/** What a place gets that lies in more than one class. */
export const IN_SEVERAL = ['the first of them', 'the last of them', 'none'] as const;
export type InSeveral = (typeof IN_SEVERAL)[number];

/** Classes of one crossplot, ready to be asked. */
export interface Plotted {
  /** Rings on axes as they are drawn: logarithms where those are. */
  rings: [number, number][][];
  /** Of each class the ranges that it is limited to, by the place of the quantity among those that are given. */
  limits: { at: number; from: number; to: number }[][];
  xLog: boolean;
  yLog: boolean;
}

const scaled = (v: number, log: boolean) => (log ? Math.log10(v) : v);

/**
 * Classes of one crossplot.
 * @param further ids of the quantities that classes may be limited by, in the order in which their values are given
 */
export function plotted(classes: PlotClass[], further: string[], nameOf: (id: string) => string): Plotted {
  const [first] = classes;
  for (const c of classes)
    if (c.x.of !== first.x.of || c.y.of !== first.y.of || c.x.log !== first.x.log || c.y.log !== first.y.log)
      throw new LithagonError('input', `${c.name} and ${first.name} are drawn on different axes.`, {
        object: c.name,
        fix: 'Choose classes of one crossplot.',
      });
  return {
    xLog: first.x.log,
    yLog: first.y.log,
    rings: classes.map((c) => c.ring.map(([x, y]) => [scaled(x, first.x.log), scaled(y, first.y.log)])),
    limits: classes.map((c) =>
      (c.limits ?? []).map(({ of, from, to }) => {
        const at = further.indexOf(of);
        if (at < 0)
          throw new LithagonError('input', `${c.name} is limited by ${nameOf(of)}, which is not given.`, {
            object: c.name,
            fix: 'Choose it as the third or fourth.',
          });
        return { at, from, to };
      }),
    ),
  };
}

/**
 * The class of each place, from one on; 0 where it is in none, NaN where x or y is none.
 * @param further the further quantities at each place
 */
export function classify(
  { rings, limits, xLog, yLog }: Plotted,
  x: Float32Array,
  y: Float32Array,
  further: (Float32Array | undefined)[],
  several: InSeveral,
): Float32Array {
  const out = new Float32Array(x.length);
  for (let n = 0; n < out.length; n++) {
    const [a, b] = [scaled(x[n], xLog), scaled(y[n], yLog)];
    if (a !== a || b !== b) {
      out[n] = Number.NaN;
      continue;
    }
    let [found, times] = [0, 0];
    for (let c = 0; c < rings.length; c++) {
      if (!inRing(rings[c], a, b)) continue;
      if (
        limits[c].some(
          ({ at, from, to }) => !((further[at]?.[n] ?? Number.NaN) >= from && (further[at]?.[n] as number) <= to),
        )
      )
        continue;
      times++;
      if (found === 0 || several === 'the last of them') found = c + 1;
    }
    out[n] = times > 1 && several === 'none' ? 0 : found;
  }
  return out;
}
