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
  const left = (ms: number) => `${((ms - first) / (last - first)) * 100}%`;
  const top = (deg: number) => `${((180 - deg) / 360) * 100}%`;
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
          <i className={css.chosen} style={{ left: left(shiftMs), top: top(phaseDeg) }}>
            {figure(correlation, 2)}
          </i>
          {map.runnerUp && (
            <i className={css.second} style={{ left: left(map.runnerUp.shiftMs), top: top(phaseDeg) }}>
              {figure(map.runnerUp.correlation, 2)}
            </i>
          )}
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
