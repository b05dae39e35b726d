import { useEffect, useRef } from 'react';
import { colorMap } from '../../color/maps';
import { faciesColor } from '../logs/marks';
import css from './Crossplot.module.css';
import type { Picture } from './usePlot';

/** Where the plot stands in its view, pixels. */
export interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Red, green and blue of a colour written in hexadecimal. */
const partsOf = (color: string) => [1, 3, 5].map((at) => Number.parseInt(color.slice(at, at + 2), 16));

/** Red, green, blue and opacity of cells of which no class is known: faint, as no class is. */
export const UNNAMED = [150, 150, 150, 80];

/** The raster, coloured by what the points are or by how many there are. */
export function Density(props: {
  picture: Picture | null;
  box: Box;
  range: [number, number] | null;
  classes: string[];
}) {
  const { picture, box, range, classes } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const target = canvas.current;
    const context = target?.getContext('2d');
    if (!target || !context || !picture) return;
    [target.width, target.height] = [picture.width, picture.height];
    const image = context.createImageData(picture.width, picture.height);
    const rgb = colorMap(picture.means ? 'strata' : 'lichen');
    const top = Math.log1p(picture.most);
    const names = classes.map((c) => partsOf(faciesColor(c, classes)));
    for (let n = 0; n < picture.counts.length; n++) {
      const many = picture.counts[n];
      if (many === 0) continue;
      if (picture.classes) {
        const named = names[picture.classes[n]];
        image.data.set(named ? [...named, 255] : UNNAMED, 4 * n);
        continue;
      }
      const mean = picture.means?.[n];
      const f =
        mean !== undefined && range
          ? mean === mean
            ? (mean - range[0]) / (range[1] - range[0])
            : -1
          : 0.25 + (0.75 * Math.log1p(many)) / top;
      const c = 3 * Math.round(255 * Math.max(0, Math.min(1, f)));
      if (f < 0 && mean !== mean) image.data.set([150, 150, 150, 200], 4 * n);
      else image.data.set([rgb[c], rgb[c + 1], rgb[c + 2], 255], 4 * n);
    }
    context.putImageData(image, 0, 0);
    target.dataset.tookMs = picture.tookMs.toFixed(1);
  }, [picture, range, classes]);
  return (
    <canvas
      ref={canvas}
      data-testid="crossplot-raster"
      className={css.raster}
      style={{ left: box.left, top: box.top, width: box.width, height: box.height }}
    />
  );
}
