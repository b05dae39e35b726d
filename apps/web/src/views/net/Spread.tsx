import { bin } from 'd3-array';
import { useRef } from 'react';
import css from './Net.module.css';

const [WIDTH, HEIGHT] = [210, 54];

/** How a measure of faults is spread, with a handle: what lies below it is hidden in every view. */
export function Spread(props: {
  label: string;
  unit: string;
  values: number[];
  at: number;
  /** How many values stand above the handle. */
  onMove(at: number): void;
}) {
  const { label, unit, values, at, onMove } = props;
  const held = useRef(false);
  const most = Math.max(...values, 1e-9);
  const bins = bin().domain([0, most]).thresholds(20)(values);
  const tallest = Math.max(...bins.map((b) => b.length), 1);
  const x = (v: number) => (v / most) * WIDTH;
  const kept = values.filter((v) => v >= at).length;
  const move = (e: React.PointerEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    onMove(Math.max(0, Math.min(most, ((e.clientX - box.left) / box.width) * most)));
  };
  const text = `${at >= 100 ? at.toFixed(0) : at.toFixed(2)}${unit ? ` ${unit}` : ''}`;
  return (
    <div className={css.spread}>
      <span>
        {label} at least {text}: {kept} of {values.length}
      </span>
      {/* biome-ignore lint/a11y/useSemanticElements: it is a chart */}
      <svg
        role="group"
        aria-label={`How ${label.toLowerCase()} is spread`}
        width={WIDTH}
        height={HEIGHT}
        onPointerDown={(e) => {
          held.current = true;
          e.currentTarget.setPointerCapture(e.pointerId);
          move(e);
        }}
        onPointerMove={(e) => held.current && move(e)}
        onPointerUp={() => {
          held.current = false;
        }}
      >
        {bins.map((b) => {
          const [from, to] = [x(b.x0 ?? 0), x(b.x1 ?? 0)];
          const tall = (b.length / tallest) * (HEIGHT - 12);
          return (
            <rect
              key={b.x0}
              x={from + 0.5}
              y={HEIGHT - 8 - tall}
              width={Math.max(1, to - from - 1)}
              height={tall}
              className={(b.x1 ?? 0) <= at ? css.below : css.above}
            />
          );
        })}
        <path d={`M0 ${HEIGHT - 8}H${WIDTH}`} className={css.grid} />
        <path
          d={`M${x(at)} 0V${HEIGHT - 2}M${x(at) - 5} ${HEIGHT}L${x(at)} ${HEIGHT - 8}L${x(at) + 5} ${HEIGHT}Z`}
          className={css.handle}
          role="slider"
          tabIndex={0}
          aria-label={`Least ${label.toLowerCase()}`}
          aria-valuemin={0}
          aria-valuemax={most}
          aria-valuenow={at}
          aria-valuetext={text}
          onKeyDown={(e) => {
            const to = { ArrowLeft: at - most / 40, ArrowRight: at + most / 40, Home: 0, End: most }[e.key];
            if (to !== undefined) onMove(Math.max(0, Math.min(most, to)));
          }}
        />
      </svg>
    </div>
  );
}
