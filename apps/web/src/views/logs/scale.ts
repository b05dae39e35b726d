/** Scales that are drawn by, 1 : n. */
export const SCALES = [100, 200, 500, 1000, 2000, 5000, 10000];
/** A CSS pixel on paper, metres. */
export const PIXEL_M = 0.0254 / 96;

/** The round scale that a panel is printed at: the one nearest to how it stands. */
export const nearestScale = (scale: number) =>
  SCALES.reduce((a, b) => (Math.abs(Math.log(b / scale)) < Math.abs(Math.log(a / scale)) ? b : a));
