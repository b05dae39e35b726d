/** Points of a crossplot, NaN left out beforehand; logarithmic axes hold the decimal logarithms. */
export interface Points {
  x: Float32Array;
  y: Float32Array;
  /** The value that colours them, NaN where there is none. */
  color: Float32Array | null;
}

export interface PlotWindow {
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}

/** How many points fall into each cell of a raster, and the mean of what colours them. Rows run from the top (y1) down. */
export interface Density {
  width: number;
  height: number;
  counts: Uint32Array;
  means: Float32Array | null;
  /** Commonest class of each cell, −1 where there is none; only where colours are classes. */
  classes: Int16Array | null;
  most: number;
  inside: number;
}

/**
 * Count points into the cells of a raster: one pass, whatever their number.
 * @param categories number of classes that the colours count, or 0 where they are values
 */
export function densityOf(points: Points, w: PlotWindow, width: number, height: number, categories = 0): Density {
  const counts = new Uint32Array(width * height);
  const { x, y, color } = points;
  const { x0, y1 } = w;
  const [fx, fy] = [width / (w.x1 - x0), height / (y1 - w.y0)];
  // the cell of every point first: the passes that follow are then of one kind each
  const cells = new Int32Array(x.length);
  let inside = 0;
  for (let n = 0; n < cells.length; n++) {
    const a = (x[n] - x0) * fx;
    const b = (y1 - y[n]) * fy;
    if (a >= 0 && a < width && b >= 0 && b < height) {
      const cell = (b | 0) * width + (a | 0);
      cells[n] = cell;
      counts[cell]++;
      inside++;
    } else cells[n] = -1;
  }
  let most = 0;
  for (let n = 0; n < counts.length; n++) if (counts[n] > most) most = counts[n];
  const means = color && categories === 0 ? meansOf(cells, color, counts.length) : null;
  const classes = color && categories > 0 ? commonest(cells, color, counts.length, categories) : null;
  return { width, height, counts, means, classes, most, inside };
}

/** Mean of what colours the points of each cell, NaN where nothing does. */
function meansOf(cells: Int32Array, color: Float32Array, count: number): Float32Array {
  // sum and number side by side, since both are wanted at once
  const told = new Float64Array(2 * count);
  for (let n = 0; n < cells.length; n++) {
    const at = 2 * cells[n];
    const value = color[n];
    if (at < 0 || value !== value) continue;
    told[at] += value;
    told[at + 1]++;
  }
  const out = new Float32Array(count);
  for (let c = 0; c < count; c++) out[c] = told[2 * c] / told[2 * c + 1];
  return out;
}

/** Commonest class of the points of each cell, the first of those alike; −1 where there is none. */
function commonest(cells: Int32Array, color: Float32Array, count: number, categories: number): Int16Array {
  const votes = new Uint32Array(count * categories);
  for (let n = 0; n < cells.length; n++) if (cells[n] >= 0 && color[n] >= 0) votes[cells[n] * categories + color[n]]++;
  const out = new Int16Array(count).fill(-1);
  for (let cell = 0; cell < count; cell++)
    for (let c = 0, best = 0; c < categories; c++) {
      const some = votes[cell * categories + c];
      if (some <= best) continue;
      best = some;
      out[cell] = c;
    }
  return out;
}

/** Whether a point lies in a ring, by the crossings of a ray. */
export function inRing(ring: [number, number][], x: number, y: number): boolean {
  let odd = false;
  for (let a = 0, b = ring.length - 1; a < ring.length; b = a++)
    if (
      ring[a][1] > y !== ring[b][1] > y &&
      x < ((ring[b][0] - ring[a][0]) * (y - ring[a][1])) / (ring[b][1] - ring[a][1]) + ring[a][0]
    )
      odd = !odd;
  return odd;
}

/** Which points lie in a ring: 1 or 0 each. */
export function selected(points: Pick<Points, 'x' | 'y'>, ring: [number, number][]): Uint8Array {
  const out = new Uint8Array(points.x.length);
  if (ring.length < 3) return out;
  const [x0, x1] = [Math.min(...ring.map((p) => p[0])), Math.max(...ring.map((p) => p[0]))];
  for (let n = 0; n < out.length; n++)
    if (points.x[n] >= x0 && points.x[n] <= x1 && inRing(ring, points.x[n], points.y[n])) out[n] = 1;
  return out;
}

/** A straight line through points by least squares, y on x. */
export interface LineFit {
  slope: number;
  intercept: number;
  /** Correlation. */
  r: number;
  count: number;
  /** rms of what is left over. */
  spread: number;
  meanX: number;
  /** Sum of squares of x about its mean. */
  squares: number;
}

export function fitLine(points: Pick<Points, 'x' | 'y'>): LineFit | null {
  const { x, y } = points;
  const n = x.length;
  if (n < 3) return null;
  let [sx, sy] = [0, 0];
  for (let k = 0; k < n; k++) {
    sx += x[k];
    sy += y[k];
  }
  const [mx, my] = [sx / n, sy / n];
  let [xx, xy, yy] = [0, 0, 0];
  for (let k = 0; k < n; k++) {
    xx += (x[k] - mx) ** 2;
    xy += (x[k] - mx) * (y[k] - my);
    yy += (y[k] - my) ** 2;
  }
  if (!(xx > 0)) return null;
  const slope = xy / xx;
  return {
    slope,
    intercept: my - slope * mx,
    r: yy > 0 ? xy / Math.sqrt(xx * yy) : 0,
    count: n,
    spread: Math.sqrt(Math.max(0, yy - slope * xy) / Math.max(1, n - 2)),
    meanX: mx,
    squares: xx,
  };
}

/** Half width of the band in which 95 of 100 further points lie at x (Draper & Smith 1998, Applied Regression Analysis, 3.1). */
export function bandAt(fit: LineFit, x: number): number {
  return 1.96 * fit.spread * Math.sqrt(1 + 1 / fit.count + (x - fit.meanX) ** 2 / fit.squares);
}
