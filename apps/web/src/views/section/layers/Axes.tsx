import { domainUnit, windOf } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { useMapUnit, useUnits } from '../../../state/units';
import type { Settings } from '../../../state/views';
import { domainAxis } from '../../common/domains';
import css from '../../common/view.module.css';
import { type Frame, scales } from '../frame';
import { distancesAlong } from '../geometry';

type Axis = Settings['section']['axis'];

/** Round values of what is counted along a section, and the trace at which it has each. */
export function marksAlong(
  values: number[],
  from: number,
  to: number,
  most: number,
): { value: number; trace: number }[] {
  const seen = values.slice(Math.floor(from), Math.ceil(to) + 1);
  const [low, high] = [Math.min(...seen), Math.max(...seen)];
  const round = scaleLinear([low, high], [0, 1]).ticks(Math.max(2, most));
  const out: { value: number; trace: number }[] = [];
  for (let n = Math.floor(from); n < Math.min(values.length - 1, Math.ceil(to)); n++) {
    const [a, b] = [values[n], values[n + 1]];
    for (const value of round) {
      // each end belongs to the piece that begins there
      const last = n === values.length - 2 && value === b;
      if ((a <= value && value < b) || (b < value && value <= a) || last)
        out.push({ value, trace: n + (b === a ? 0 : (value - a) / (b - a)) });
    }
  }
  return out.filter(({ trace }) => trace >= from && trace <= to);
}

/** Ticks outside the data: line numbers, distance or coordinates on top, TWT or depth at the left, and which way it faces. */
export function Axes({ frame, axis }: { frame: Frame; axis: Axis }) {
  const { line, window, box, domain } = frame;
  const units = useUnits();
  const map = useMapUnit();
  const { x, y } = scales(frame);
  const shown = (v: number) => units.to(v, domainUnit(domain));
  const vertical = scaleLinear(y.domain().map(shown), y.range());
  const far = units.of('m') === 'ft' ? { unit: 'kft', per: 304.8 } : { unit: 'km', per: 1000 };
  const counts = axis === 'line' && line.along !== 'distance';
  const values = useMemo(() => {
    const traces = Array.from({ length: line.traces }, (_, t) => t);
    if (counts) return traces.map((t) => line.number(t));
    if (axis === 'x' || axis === 'y') return traces.map((t) => line.place(t)[axis === 'x' ? 0 : 1] / map.metres);
    return distancesAlong(traces.map((t) => line.place(t))).map((m) => m / far.per);
  }, [line, axis, counts, map.metres, far.per]);
  const marks = marksAlong(values, window.x0, window.x1, Math.floor(box.width / 80)).filter(
    ({ value }) => !counts || Number.isInteger(value),
  );
  const what = counts
    ? line.along
    : axis === 'x' || axis === 'y'
      ? `${axis.toUpperCase()} (${map.unit})`
      : `distance (${far.unit})`;
  const [dx, dy] = [line.to[0] - line.from[0], line.to[1] - line.from[1]];
  const right = box.left + box.width;
  let last = Number.NEGATIVE_INFINITY;
  return (
    <g>
      <text x={box.left} y={11} className={css.compass}>
        {windOf(-dx, -dy)}
      </text>
      <text x={right} y={11} textAnchor="end" className={css.compass}>
        {windOf(dx, dy)}
      </text>
      {box.width > 170 && (
        <text x={box.left + box.width / 2} y={11} textAnchor="middle">
          {what}
        </text>
      )}
      {marks.map(({ value, trace }) => {
        const at = x(trace);
        // a line that turns back meets a value twice, perhaps close by
        if (at - last < 40) return null;
        last = at;
        return (
          <g key={trace}>
            <line x1={at} x2={at} y1={box.top - 5} y2={box.top - 1} className={css.axis} />
            <text
              x={Math.min(right - 12, Math.max(box.left + 12, at))}
              y={box.top - 8}
              textAnchor="middle"
              className={css.tick}
            >
              {Number(value.toFixed(3))}
            </text>
          </g>
        );
      })}
      {line.bends.slice(1, -1).map((t) =>
        t > window.x0 && t < window.x1 ? (
          <path key={t} d={`M${x(t)} ${box.top}v${box.height}`} className={css.bend}>
            <title>The line bends here</title>
          </path>
        ) : null,
      )}
      {vertical.ticks(Math.max(2, Math.floor(box.height / 55))).map((t) => (
        <g key={t}>
          <line x1={box.left - 5} x2={box.left - 1} y1={vertical(t)} y2={vertical(t)} className={css.axis} />
          <text
            x={box.left - 8}
            y={Math.min(box.top + box.height, Math.max(box.top + 8, vertical(t) + 4))}
            textAnchor="end"
            className={css.tick}
          >
            {t}
          </text>
        </g>
      ))}
      <text transform={`translate(11 ${box.top + box.height / 2}) rotate(-90)`} textAnchor="middle">
        {domainAxis(domain, units)}
      </text>
      <rect x={box.left} y={box.top} width={box.width} height={box.height} fill="none" stroke="var(--ash)" />
    </g>
  );
}
