import type { ScaleLinear } from 'd3-scale';
import type { ReactNode } from 'react';

export interface ChartSize {
  width: number;
  height: number;
}

/** What is left around a chart for its axes. */
export const EDGES = { left: 46, right: 10, top: 22, bottom: 32 };

/** A chart with named axes; what is drawn in it is clipped to its inside. */
export function Chart(props: {
  size: ChartSize;
  x: ScaleLinear<number, number>;
  y: ScaleLinear<number, number>;
  xText: string;
  yText: string;
  label: string;
  /** Whether something in it is taken hold of. */
  held?: true;
  children: ReactNode;
}) {
  const { size, x, y } = props;
  const { left, right, top, bottom } = EDGES;
  const id = `chart-${props.label.replace(/\W/g, '')}`;
  return (
    <svg width={size.width} height={size.height} role={props.held ? 'group' : 'img'} aria-label={props.label}>
      {y.ticks(4).map((v) => (
        <g key={v}>
          <line x1={left} x2={size.width - right} y1={y(v)} y2={y(v)} stroke="var(--ash)" strokeWidth={0.7} />
          <text x={left - 5} y={y(v) + 4} textAnchor="end">
            {y.tickFormat(4, '~f')(v)}
          </text>
        </g>
      ))}
      {x.ticks(5).map((v) => (
        <text key={v} x={x(v)} y={size.height - bottom + 13} textAnchor="middle">
          {x.tickFormat(5, '~f')(v)}
        </text>
      ))}
      <clipPath id={id}>
        <rect
          x={left}
          y={top}
          width={Math.max(0, size.width - left - right)}
          height={Math.max(0, size.height - top - bottom)}
        />
      </clipPath>
      <g clipPath={`url(#${id})`}>{props.children}</g>
      <rect
        x={left}
        y={top}
        width={Math.max(0, size.width - left - right)}
        height={Math.max(0, size.height - top - bottom)}
        fill="none"
        stroke="var(--ash)"
      />
      <text x={size.width - right} y={size.height - 5} textAnchor="end">
        {props.xText}
      </text>
      <text x={12} y={size.height / 2} transform={`rotate(-90 12 ${size.height / 2})`} textAnchor="middle">
        {props.yText}
      </text>
    </svg>
  );
}

export const pathOf = (points: [number, number][]): string =>
  points.map(([a, b], n) => `${n ? 'L' : 'M'}${a.toFixed(1)} ${b.toFixed(1)}`).join('');
