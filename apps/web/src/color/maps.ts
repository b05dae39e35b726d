/** Colour maps built in OKLCH from a few control points, joined in OKLab and re-spaced to even steps. */
type Control = [position: number, lightness: number, chroma: number, hue: number];

const CONTROLS = {
  'rust–bone–slate': [
    [0, 0.34, 0.06, 250],
    [0.25, 0.58, 0.055, 245],
    [0.46, 0.92, 0.014, 230],
    [0.5, 0.965, 0.012, 90],
    [0.54, 0.925, 0.03, 70],
    [0.75, 0.6, 0.115, 48],
    [1, 0.36, 0.11, 35],
  ],
  ink: [
    [0, 0.2, 0.008, 260],
    [1, 0.97, 0.004, 90],
  ],
  lichen: [
    [0, 0.97, 0.018, 100],
    [0.35, 0.82, 0.085, 112],
    [0.7, 0.58, 0.095, 150],
    [1, 0.32, 0.06, 185],
  ],
  ember: [
    [0, 0.16, 0.012, 280],
    [0.3, 0.34, 0.105, 12],
    [0.6, 0.56, 0.165, 38],
    [0.85, 0.8, 0.14, 75],
    [1, 0.965, 0.05, 98],
  ],
  strata: [
    [0, 0.9, 0.075, 82],
    [0.25, 0.77, 0.095, 62],
    [0.5, 0.63, 0.085, 25],
    [0.75, 0.48, 0.075, 330],
    [1, 0.31, 0.07, 285],
  ],
  compass: Array.from({ length: 25 }, (_, n) => [n / 24, 0.68, 0.1, 30 + 15 * n] as Control),
} satisfies Record<string, Control[]>;

export type ColorMapName = keyof typeof CONTROLS;
export const COLOR_MAPS = Object.keys(CONTROLS) as ColorMapName[];

type Triple = [number, number, number];

function toLab([, l, c, h]: Control): Triple {
  const angle = (h * Math.PI) / 180;
  return [l, c * Math.cos(angle), c * Math.sin(angle)];
}

/** OKLab to linear sRGB (Ottosson 2020). */
function toLinear([l, a, b]: Triple): Triple {
  const x = (l + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const y = (l - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const z = (l - 0.0894841775 * a - 1.291485548 * b) ** 3;
  return [
    4.0767416621 * x - 3.3077115913 * y + 0.2309699292 * z,
    -1.2684380046 * x + 2.6097574011 * y - 0.3413193965 * z,
    -0.0041960863 * x - 0.7034186147 * y + 1.707614701 * z,
  ];
}

function toBytes(lab: Triple): Triple {
  let [l, a, b] = lab;
  for (let n = 0; n < 40; n++) {
    const rgb = toLinear([l, a, b]);
    if (rgb.every((v) => v >= -1e-4 && v <= 1.0001)) break;
    a *= 0.95;
    b *= 0.95;
  }
  l = Math.min(1, l);
  return toLinear([l, a, b]).map((v) => {
    const c = Math.min(1, Math.max(0, v));
    return Math.round(255 * (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055));
  }) as Triple;
}

/** Monotone cubic through `(x, y)` (Fritsch & Carlson 1980). */
function monotone(x: number[], y: number[]): (t: number) => number {
  const n = x.length;
  const slope = x.slice(1).map((_, k) => (y[k + 1] - y[k]) / (x[k + 1] - x[k]));
  const m = y.map((_, k) => {
    if (k === 0) return slope[0];
    if (k === n - 1) return slope[n - 2];
    return slope[k - 1] * slope[k] <= 0 ? 0 : (2 * slope[k - 1] * slope[k]) / (slope[k - 1] + slope[k]);
  });
  return (t) => {
    let k = 0;
    while (k < n - 2 && t > x[k + 1]) k++;
    const h = x[k + 1] - x[k];
    const s = (t - x[k]) / h;
    return (
      y[k] * (1 + 2 * s) * (1 - s) ** 2 +
      h * m[k] * s * (1 - s) ** 2 +
      y[k + 1] * s * s * (3 - 2 * s) +
      h * m[k + 1] * s * s * (s - 1)
    );
  };
}

function evenly(path: (t: number) => Triple, from: number, to: number, count: number): Triple[] {
  const fine = 800;
  const along = [0];
  let before = path(from);
  for (let n = 1; n <= fine; n++) {
    const here = path(from + ((to - from) * n) / fine);
    along.push(along[n - 1] + Math.hypot(here[0] - before[0], here[1] - before[1], here[2] - before[2]));
    before = here;
  }
  const out: Triple[] = [];
  let n = 0;
  for (let k = 0; k < count; k++) {
    const target = (along[fine] * k) / (count - 1);
    while (n < fine - 1 && along[n + 1] < target) n++;
    const f = (target - along[n]) / (along[n + 1] - along[n] || 1);
    out.push(path(from + ((to - from) * (n + f)) / fine));
  }
  return out;
}

const made = new Map<ColorMapName, Uint8Array>();

/** 256 colours as RGB bytes, from low to high. */
export function colorMap(name: ColorMapName): Uint8Array {
  const known = made.get(name);
  if (known) return known;
  const controls: Control[] = CONTROLS[name];
  const x = controls.map((c) => c[0]);
  const labs = controls.map(toLab);
  const channels = [0, 1, 2].map((c) =>
    monotone(
      x,
      labs.map((lab) => lab[c]),
    ),
  );
  const path = (t: number): Triple => [channels[0](t), channels[1](t), channels[2](t)];
  const colors =
    name === 'rust–bone–slate'
      ? [...evenly(path, 0, 0.5, 128), ...evenly(path, 0.5, 1, 128)]
      : name === 'compass'
        ? Array.from({ length: 256 }, (_, n) => path(n / 255))
        : evenly(path, 0, 1, 256);
  const bytes = new Uint8Array(256 * 3);
  colors.forEach((lab, n) => {
    bytes.set(toBytes(lab), 3 * n);
  });
  made.set(name, bytes);
  return bytes;
}

const PEBBLES = 16;

/** Pebbles, colours of names: the `n`-th of sixteen hues in an order that keeps neighbours far apart, light and dark in turn. */
export function pebble(n: number): string {
  const k = ((n % PEBBLES) + PEBBLES) % PEBBLES;
  const lab = toLab([0, k % 2 === 0 ? 0.55 : 0.72, 0.12, 40 + ((7 * k) % PEBBLES) * (360 / PEBBLES)]);
  return `#${toBytes(lab)
    .map((v) => v.toString(16).padStart(2, '0'))
    .join('')}`;
}

/** The colour of one of so many bands of a map, from the lowest on. */
export function bandColor(name: ColorMapName, band: number, bands: number, reverse = false): string {
  const bytes = colorMap(name);
  const k = 3 * Math.round((((reverse ? bands - 1 - band : band) + 0.5) / bands) * 255);
  return `rgb(${bytes[k]} ${bytes[k + 1]} ${bytes[k + 2]})`;
}

/** A CSS gradient of a map, for colour bars. */
export function gradientOf(name: ColorMapName, direction = 'to right', reverse = false, steps?: number): string {
  const bytes = colorMap(name);
  if (steps && steps <= 40) {
    const bands = Array.from(
      { length: steps },
      (_, n) => `${bandColor(name, n, steps, reverse)} ${(100 * n) / steps}% ${(100 * (n + 1)) / steps}%`,
    );
    return `linear-gradient(${direction}, ${bands.join(', ')})`;
  }
  const stops = Array.from({ length: 24 }, (_, n) => {
    const k = Math.round(((reverse ? 23 - n : n) / 23) * 255) * 3;
    return `rgb(${bytes[k]} ${bytes[k + 1]} ${bytes[k + 2]})`;
  });
  return `linear-gradient(${direction}, ${stops.join(', ')})`;
}

/** Colours for horizons, faults and the like, far apart and legible on any colour map. */
export const LINE_COLORS = ['#7f6a2f', '#c23b6b', '#2f6db0', '#6b4aa0', '#2c8a3f', '#b4641e', '#1f766d', '#8c3a2b'];
