import { type Blend, primariesOf } from '@lithagon/core';

/** A place in the colour cube: parts of the three channels. */
export type InCube = [number, number, number];

const [COS, SIN] = [Math.cos(Math.PI / 6), 0.5];

/** How the cube is drawn: its corner where all three are full in front, the first channel down to the left, the second to the right, the third up. */
export interface CubeView {
  /** Pixels of an edge. */
  edge: number;
  /** Where the middle of the picture is. */
  x: number;
  y: number;
}

/** The cube in a picture of a size. */
export const cubeView = (width: number, height: number): CubeView => ({
  edge: Math.min(width / (2 * COS), height / 2),
  x: width / 2,
  y: height / 2,
});

/** Where a place of the cube stands in the picture. */
export function onCube([a, b, c]: InCube, { edge, x, y }: CubeView): [number, number] {
  return [x + (b - a) * COS * edge, y + ((a + b) * SIN - c) * edge];
}

/**
 * What is seen of a cube of which all beyond `level` is peeled off: the place on its three front faces.
 * @returns null beside it
 */
export function inCube(px: number, py: number, { edge, x, y }: CubeView, level: number): InCube | null {
  const u = (px - x) / (COS * edge);
  const v = (py - y) / edge;
  const inside = (n: number) => n >= -1e-9 && n <= level + 1e-9;
  const clamp = (n: number) => Math.max(0, Math.min(level, n));
  // the face on top, where the third is full; then those of the first and the second
  const sum = (v + level) / SIN;
  const faces: InCube[] = [
    [(sum - u) / 2, (sum + u) / 2, level],
    [level, level + u, (level + level + u) * SIN - v],
    [level - u, level, (level + level - u) * SIN - v],
  ];
  const found = faces.find((face) => face.every(inside));
  return found ? (found.map(clamp) as InCube) : null;
}

/** Draw the front faces of a cube in the colours of a blend; `pixel` is how many device pixels one of the view is. */
export function paintCube(
  canvas: HTMLCanvasElement,
  width: number,
  height: number,
  axes: Blend['axes'],
  level: number,
  pixel: number,
): void {
  canvas.width = Math.round(width * pixel);
  canvas.height = Math.round(height * pixel);
  const context = canvas.getContext('2d');
  if (!context) return;
  const m = primariesOf(axes);
  const view = cubeView(width, height);
  const image = context.createImageData(canvas.width, canvas.height);
  for (let py = 0, to = 0; py < canvas.height; py++)
    for (let px = 0; px < canvas.width; px++, to += 4) {
      const place = inCube((px + 0.5) / pixel, (py + 0.5) / pixel, view, level);
      if (!place) continue;
      for (let c = 0; c < 3; c++)
        image.data[to + c] = 255 * (place[0] * m[c] + place[1] * m[3 + c] + place[2] * m[6 + c]);
      image.data[to + 3] = 255;
    }
  context.putImageData(image, 0, 0);
}
