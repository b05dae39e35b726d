import { type FieldPicture, fieldPicture, loadKernels, type PictureRoom } from '@lithagon/kernels';
import { colorMap } from '../../color/maps';
import type { FieldLook } from './field';
import { type Mix, PALE, PALE_TO } from './mix';
import type { Painter, Quad, Sum } from './quad';

const SHADES = 1024;

/** Colours of a look as RGBA words, from its low end to its high one. */
export function shades(look: FieldLook): Uint32Array {
  const rgb = colorMap(look.map);
  const alpha = Math.round(255 * (look.opacity ?? 1)) << 24;
  return Uint32Array.from({ length: SHADES }, (_, n) => {
    let q = n / (SHADES - 1);
    if (look.steps) q = Math.min(1 - 0.5 / look.steps, (Math.floor(q * look.steps) + 0.5) / look.steps);
    const c = 3 * Math.round(255 * (look.reverse ? 1 - q : q));
    return (alpha | (rgb[c + 2] << 16) | (rgb[c + 1] << 8) | rgb[c]) >>> 0;
  });
}

/**
 * Where the middle of each pixel lies in a grid, as the first pixel's sample and row and what a pixel to the right and
 * one down add to them; null where the corners enclose nothing.
 */
export function placesOf(
  { corners: c, window, rows, samples }: Pick<Quad, 'corners' | 'window' | 'rows' | 'samples'>,
  width: number,
  height: number,
): { sample: [number, number, number]; row: [number, number, number] } | null {
  // place = corner + u·(along) + v·(across), turned round
  const [ax, ay, bx, by] = [c[2] - c[0], c[3] - c[1], c[6] - c[0], c[7] - c[1]];
  const area = ax * by - ay * bx;
  if (area === 0) return null;
  const [stepX, stepY] = [(window[1] - window[0]) / width, (window[3] - window[2]) / height];
  const [x, y] = [window[0] + stepX / 2 - c[0], window[2] + stepY / 2 - c[1]];
  const [k, r] = [(samples - 1) / area, (rows - 1) / area];
  return {
    sample: [(x * by - y * bx) * k, stepX * by * k, -stepY * bx * k],
    row: [(ax * y - ay * x) * r, -stepX * ay * r, stepY * ax * r],
  };
}

/** A picture of names: each pixel in the colour of the sample nearest to it. */
function nearestPicture(
  { data, rows, samples, look }: Quad,
  { sample, row }: NonNullable<ReturnType<typeof placesOf>>,
  colors: Uint32Array,
  width: number,
  height: number,
): Uint8ClampedArray<ArrayBuffer> {
  const pixels = new Uint32Array(width * height);
  const scale = (SHADES - 1) / (look.high - look.low || 1);
  for (let y = 0, n = 0; y < height; y++)
    for (let x = 0; x < width; x++, n++) {
      const k = Math.round(sample[0] + x * sample[1] + y * sample[2]);
      const r = Math.round(row[0] + x * row[1] + y * row[2]);
      if (k < 0 || r < 0 || k >= samples || r >= rows) continue;
      const v = data[r * samples + k];
      if (v === v) pixels[n] = colors[Math.max(0, Math.min(SHADES - 1, Math.round((v - look.low) * scale)))];
    }
  return new Uint8ClampedArray(pixels.buffer);
}

/** Parts of the way between two ends as bytes of the lowest channel: what a field's picture holds of one that is mixed. */
function partsBetween(turned: boolean): Uint32Array {
  return Uint32Array.from({ length: SHADES }, (_, n) => {
    const q = Math.round((255 * n) / (SHADES - 1));
    return ((255 << 24) | (turned ? 255 - q : q)) >>> 0;
  });
}

const RISING = partsBetween(false);
const FALLING = partsBetween(true);

/** Colours of pixels of which each channel's part is known, `[pixel]` as bytes; nothing where one of them is not there. */
export function mixPictures(
  pictures: Uint32Array[],
  { primaries, strength, lit }: Mix,
): Uint8ClampedArray<ArrayBuffer> {
  const [red, green, blue, shade] = pictures;
  const out = new Uint8ClampedArray(4 * red.length);
  const m = primaries;
  for (let n = 0, to = 0; n < red.length; n++, to += 4) {
    if (!(red[n] && green[n] && blue[n]) || (shade && !shade[n])) continue;
    const [a, b, c] = [red[n] & 255, green[n] & 255, blue[n] & 255];
    const light = shade ? 1 - strength * (1 - (shade[n] & 255) / 255) : 1;
    let r = light * (a * m[0] + b * m[3] + c * m[6]);
    let g = light * (a * m[1] + b * m[4] + c * m[7]);
    let l = light * (a * m[2] + b * m[5] + c * m[8]);
    if (lit) {
      const off = Math.max(Math.abs(a / 255 - lit.at[0]), Math.abs(b / 255 - lit.at[1]), Math.abs(c / 255 - lit.at[2]));
      if (off > lit.reach) {
        const pale = 255 * PALE_TO * (1 - PALE);
        r = PALE * r + pale;
        g = PALE * g + pale;
        l = PALE * l + pale;
      }
    }
    out[to] = r;
    out[to + 1] = g;
    out[to + 2] = l;
    out[to + 3] = 255;
  }
  return out;
}

/** Two grids weighed and added into one. */
function summed(data: Float32Array, { second, weights: [a, b] }: Sum, out: Float32Array): Float32Array {
  for (let n = 0; n < out.length; n++) out[n] = a * data[n] + b * second[n];
  return out;
}

/** Draws as `graphicsPainter` does, with the processor: a few milliseconds where emulated graphics take tens. */
export function processorPainter(): Painter {
  const room: PictureRoom = { kernels: loadKernels(), held: null };
  /** Where two grids are added: of one size it is used again. */
  let sum = new Float32Array(0);
  /** What a channel of a mix has at each pixel, as a byte. */
  const channel = (field: Omit<FieldPicture, 'colors' | 'low' | 'high'>, { from, to }: Mix['ends'][number]) =>
    new Uint32Array(
      fieldPicture(room, {
        ...field,
        colors: from > to ? FALLING : RISING,
        low: Math.min(from, to),
        high: Math.max(from, to),
      }).slice().buffer,
    );
  return {
    paint(canvas, quad, width, height) {
      if (width < 2 || height < 2) return;
      if (canvas.width !== width) canvas.width = width;
      if (canvas.height !== height) canvas.height = height;
      const context = canvas.getContext('2d');
      const places = placesOf(quad, width, height);
      if (!places) return context?.clearRect(0, 0, width, height);
      const { rows, samples, look } = quad;
      let { data } = quad;
      if (quad.mix) {
        const { mix } = quad;
        const pictures = [data, ...mix.more].map((each, n) =>
          channel({ ...places, data: each, rows, samples, width, height }, mix.ends[n]),
        );
        context?.putImageData(new ImageData(mixPictures(pictures, mix), width, height), 0, 0);
        return;
      }
      if (quad.sum) {
        if (sum.length !== data.length) sum = new Float32Array(data.length);
        data = summed(data, quad.sum, sum);
        // what was kept of these samples is of other weights
        room.held = null;
      }
      const colors = shades(look);
      const pixels = look.whole
        ? nearestPicture({ ...quad, data }, places, colors, width, height)
        : fieldPicture(room, {
            ...places,
            data,
            rows,
            samples,
            width,
            height,
            colors,
            low: look.low,
            high: look.high,
          });
      context?.putImageData(new ImageData(pixels, width, height), 0, 0);
    },
    free() {
      room.held = null;
    },
  };
}
