import type { AgeAxis } from './flat.ts';

/** What a trace says of each age of an axis. */
export interface TraceByAge {
  /** Thickness laid down in a unit of age; NaN where there is none. */
  thickness: Float32Array;
  /** How much that grows with a unit of age, of itself. */
  change: Float32Array;
  /** 1 where nothing is left of an age between those there are, 0 where something is, NaN beyond them. */
  hiatus: Float32Array;
}

/**
 * Thickness, its change and hiatus against age (chronostratigraphic charts: Wheeler 1958, AAPG Bulletin 42, 1047–1063).
 * @param places samples at which the trace passes each age; NaN where it does not
 * @param step ms or m from a sample to the next
 * @param over ages over which change is fitted, to each side
 */
export function traceByAge(places: ArrayLike<number>, axis: AgeAxis, step: number, over: number): TraceByAge {
  const { count } = axis;
  const out: TraceByAge = {
    thickness: new Float32Array(count).fill(Number.NaN),
    change: new Float32Array(count).fill(Number.NaN),
    hiatus: new Float32Array(count).fill(Number.NaN),
  };
  let [first, last] = [-1, -1];
  for (let n = 0; n < count; n++) {
    if (places[n] !== places[n]) continue;
    if (first < 0) first = n;
    last = n;
  }
  if (first < 0) return out;
  for (let n = first; n <= last; n++) {
    const own = places[n];
    out.hiatus[n] = own === own ? 0 : 1;
    if (own !== own) continue;
    // from one side alone where the other is missing
    const [a, b] = [places[n - 1] === places[n - 1] ? n - 1 : n, places[n + 1] === places[n + 1] ? n + 1 : n];
    const [from, to] = [n > 0 ? a : n, n + 1 < count ? b : n];
    if (to === from) continue;
    const thick = ((places[to] - places[from]) * step) / ((to - from) * axis.step);
    // a fault between the two is no thickness
    if (thick > 0) out.thickness[n] = thick;
  }
  const half = Math.max(1, Math.round(over / axis.step));
  for (let n = first; n <= last; n++) {
    let [s, sx, sy, sxx, sxy] = [0, 0, 0, 0, 0];
    for (let m = Math.max(first, n - half); m <= Math.min(last, n + half); m++) {
      const v = out.thickness[m];
      if (v !== v) continue;
      const x = (m - n) * axis.step;
      s++;
      sx += x;
      sy += v;
      sxx += x * x;
      sxy += x * v;
    }
    const spread = s * sxx - sx * sx;
    if (s >= 3 && spread > 0 && sy > 0 && out.thickness[n] === out.thickness[n])
      out.change[n] = (s * sxy - sx * sy) / spread / (sy / s);
  }
  return out;
}

/** Thickness by age on the two sides of a fault. */
export interface Growth {
  from: number;
  to: number;
  /** Thickness in a unit of age; NaN where too little is known. */
  hanging: number;
  foot: number;
}

/** What is needed of one side of a fault: ages and the thickness of a unit of age, place by place. */
export interface SideByAge {
  age: number[];
  thickness: number[];
}

/** Fewest places of a side in a band of ages. */
const FEWEST = 8;

/**
 * Thickness beside a fault by bands of age: hanging over foot is the growth index (Thorsen 1963, Trans. GCAGS 13, 103–110). The median
 * of the places of a side.
 */
export function growthOf(foot: SideByAge, hanging: SideByAge, bands: number[]): Growth[] {
  const middle = ({ age, thickness }: SideByAge, from: number, to: number) => {
    const own = thickness.filter((v, n) => v === v && age[n] >= from && age[n] < to).sort((a, b) => a - b);
    return own.length >= FEWEST ? own[own.length >> 1] : Number.NaN;
  };
  return bands.slice(1).map((to, n) => ({
    from: bands[n],
    to,
    hanging: middle(hanging, bands[n], to),
    foot: middle(foot, bands[n], to),
  }));
}
