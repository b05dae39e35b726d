import type { Tie } from '@lithagon/core';
import { useEffect, useRef } from 'react';
import { colorMap } from '../../color/maps';
import { figure } from '../../ui/format';
import { StripPlot } from './StripPlot';
import css from './Tie.module.css';
import { changeTie } from './useTie';

/** Correlation over shift and phase as a map; the chosen match and its runner-up are marked. A click takes a match. */
export function MatchPlot({ tie, draft }: { tie: Tie; draft: boolean }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { map, shiftMs, phaseDeg, correlation } = tie.chain;
  const [columns, rows] = [map.shifts.length, map.phases.length];
  useEffect(() => {
    const target = canvas.current;
    const context = target?.getContext('2d');
    if (!target || !context) return;
    target.width = columns;
    target.height = rows;
    const image = context.createImageData(columns, rows);
    const rgb = colorMap('ember');
    for (let p = 0; p < rows; p++)
      for (let s = 0; s < columns; s++) {
        const v = Math.max(0, Math.min(1, map.values[p * columns + s]));
        const c = 3 * Math.round(v * 255);
        // phase grows upwards
        image.data.set([rgb[c], rgb[c + 1], rgb[c + 2], 255], 4 * ((rows - 1 - p) * columns + s));
      }
    context.putImageData(image, 0, 0);
  }, [map, columns, rows]);
  const [first, last] = [map.shifts[0], map.shifts[columns - 1]];
  const mark = (className: string, ms: number, value: number) => {
    const part = (ms - first) / (last - first);
    const style = { left: `${100 * part}%`, top: `${((180 - phaseDeg) / 360) * 100}%` };
    return (
      <i className={className} style={style} data-left={part > 0.8 || undefined}>
        {figure(value, 2)}
      </i>
    );
  };
  return (
    <StripPlot title="Match" note="over shift and phase, 0 to 1">
      <div className={css.matchBox}>
        <div className={css.phases}>
          {['180°', '0°', '−180°'].map((t) => (
            <span key={t}>{t}</span>
          ))}
        </div>
        <div className={css.mapBox}>
          <canvas
            ref={canvas}
            aria-label="Correlation over shift and phase"
            onClick={(e) => {
              if (!draft) return;
              const rect = e.currentTarget.getBoundingClientRect();
              const ms = first + ((e.clientX - rect.left) / rect.width) * (last - first);
              const deg = 180 - ((e.clientY - rect.top) / rect.height) * 360;
              changeTie({
                shift: 'typed',
                shiftMs: Math.round(2 * ms) / 2,
                phaseDeg: Math.round(deg / 5) * 5,
                mostPhaseDeg: 0,
              });
            }}
          />
          {mark(css.chosen, shiftMs, correlation)}
          {map.runnerUp && mark(css.second, map.runnerUp.shiftMs, map.runnerUp.correlation)}
        </div>
        <span />
        <div className={css.shifts}>
          <span>{figure(first, 0)}</span>
          <span>shift (ms)</span>
          <span>{last}</span>
        </div>
      </div>
    </StripPlot>
  );
}
