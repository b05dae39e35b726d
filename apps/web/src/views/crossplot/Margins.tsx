import { useMemo } from 'react';
import { faciesColor } from '../logs/marks';
import css from './Crossplot.module.css';
import type { Box } from './Density';
import type { Picture } from './usePlot';

/** Bars along an axis, and how far the highest reaches into the plot. */
const [BARS, HIGH] = [48, 46];

/** How each class is spread along both axes: bars stacked at the upper and right edge of the plot. */
export function Margins({ picture, box, classes }: { picture: Picture; box: Box; classes: string[] }) {
  const { across, up } = useMemo(() => {
    const rows = () => Array.from({ length: BARS }, () => new Float64Array(classes.length));
    const [a, u] = [rows(), rows()];
    for (let n = 0; n < picture.counts.length; n++) {
      const c = picture.classes?.[n] ?? -1;
      if (c < 0) continue;
      a[Math.floor(((n % picture.width) * BARS) / picture.width)][c] += picture.counts[n];
      u[Math.floor((Math.floor(n / picture.width) * BARS) / picture.height)][c] += picture.counts[n];
    }
    // each bar as pieces from the edge inwards
    const stacked = (bars: Float64Array[]) => {
      const most = Math.max(1, ...bars.map((b) => b.reduce((p, q) => p + q, 0)));
      return bars.flatMap((bar, at) => {
        let from = 0;
        return Array.from(bar, (v, c) => {
          const size = (v / most) * HIGH;
          from += size;
          return { at, c, from: from - size, size };
        }).filter((p) => p.size > 0);
      });
    };
    return { across: stacked(a), up: stacked(u) };
  }, [picture, classes]);
  const [w, h] = [box.width / BARS, box.height / BARS];
  return (
    <svg
      className={css.overlay}
      style={{ left: box.left, top: box.top }}
      width={box.width}
      height={box.height}
      aria-hidden="true"
    >
      <g fillOpacity={0.6}>
        {across.map((p) => (
          <rect
            key={`a${p.at}.${p.c}`}
            x={p.at * w}
            y={p.from}
            width={Math.max(0, w - 0.6)}
            height={p.size}
            fill={faciesColor(classes[p.c], classes)}
          />
        ))}
        {up.map((p) => (
          <rect
            key={`u${p.at}.${p.c}`}
            x={box.width - p.from - p.size}
            y={p.at * h}
            width={p.size}
            height={Math.max(0, h - 0.6)}
            fill={faciesColor(classes[p.c], classes)}
          />
        ))}
      </g>
    </svg>
  );
}
