import { useRef } from 'react';
import { gradientOf } from '../../color/maps';
import css from '../common/view.module.css';
import type { FieldLook } from '../raster/field';

type Point = [value: number, opacity: number];
const [WIDTH, HEIGHT, NEAR] = [262, 64, 9];

/** How opaque each value is when a volume is looked through: points are dragged, added by a click and taken away by a double click. */
export function TransferCurve(props: { points: Point[]; look: FieldLook; onChange(points: Point[]): void }) {
  const { points, look, onChange } = props;
  const held = useRef<number | null>(null);
  const sorted = [...points].sort((a, b) => a[0] - b[0]);
  const place = ([v, o]: Point): [number, number] => [v * WIDTH, HEIGHT - o * HEIGHT];
  const at = (event: React.PointerEvent | React.MouseEvent): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    const part = (v: number) => Math.max(0, Math.min(1, v));
    return [part((event.clientX - box.left) / box.width), part(1 - (event.clientY - box.top) / box.height)];
  };
  const near = (p: Point) => {
    const [x, y] = place(p);
    return sorted.findIndex((each) => Math.hypot(place(each)[0] - x, place(each)[1] - y) < NEAR);
  };
  /** The ends of the range keep their values. */
  const moved = (n: number, [v, o]: Point): Point[] => {
    const last = sorted.length - 1;
    const value = n === 0 ? 0 : n === last ? 1 : Math.max(sorted[n - 1][0], Math.min(sorted[n + 1][0], v));
    return sorted.map((p, m) => (m === n ? [value, o] : p));
  };
  return (
    <div>
      <svg
        width={WIDTH}
        height={HEIGHT}
        role="application"
        aria-label="Opacity over the colour range"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: points are moved by arrows
        tabIndex={0}
        className={css.transfer}
        onKeyDown={(event) => {
          const by = { ArrowUp: 0.05, ArrowDown: -0.05 }[event.key];
          if (!by) return;
          event.preventDefault();
          // all of it stronger or fainter
          onChange(sorted.map(([v, o]) => [v, Math.max(0, Math.min(1, o === 0 ? 0 : o + by))]));
        }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          const p = at(event);
          const n = near(p);
          held.current = n;
          if (n >= 0 || sorted.length >= 12) return;
          const next = [...sorted, p].sort((a, b) => a[0] - b[0]);
          held.current = next.indexOf(p);
          onChange(next);
        }}
        onPointerMove={(event) => {
          if (held.current !== null && held.current >= 0) onChange(moved(held.current, at(event)));
        }}
        onPointerUp={() => {
          held.current = null;
        }}
        onDoubleClick={(event) => {
          const n = near(at(event));
          if (n > 0 && n < sorted.length - 1) onChange(sorted.filter((_, m) => m !== n));
        }}
      >
        <path
          d={`M0 ${HEIGHT}${sorted.map((p) => `L${place(p).join(' ')}`).join('')}L${WIDTH} ${HEIGHT}Z`}
          fill="var(--slate)"
          fillOpacity={0.25}
          stroke="var(--ink)"
        />
        {sorted.map((p, n) => (
          <circle key={n} cx={place(p)[0]} cy={place(p)[1]} r={4} fill="var(--ochre)" stroke="var(--vellum)" />
        ))}
      </svg>
      <div style={{ height: 6, width: WIDTH, background: gradientOf(look.map, 'to right', look.reverse) }} />
    </div>
  );
}
