import type { Pin, Tie } from '@lithagon/core';
import { useRef } from 'react';
import { figure } from '../../ui/format';
import type { Box, Scale } from './parts';
import css from './Tie.module.css';
import { changeTie } from './useTie';

/** Where the tie puts a calibrated time that is pinned. */
const placeOf = (tie: Tie, pin: Pin) => pin.twt + pin.shiftMs + tie.chain.shiftMs;

/** Pin the synthetic at a time as it lies now. */
export function addPin(tie: Tie, pins: Pin[], time: number): void {
  const { calibration, twt } = tie.chain;
  let n = 0;
  while (n < twt.length - 1 && twt[n] < time) n++;
  const own = pins.length > 0 ? pins : tie.chain.pins;
  const added = { twt: calibration.twt[n], shiftMs: twt[n] - calibration.twt[n] - tie.chain.shiftMs };
  changeTie({
    stretch: 'pins',
    pins: [...own.filter((p) => Math.abs(p.twt - added.twt) > 6), added].sort((a, b) => a.twt - b.twt),
  });
}

/** Times at which the synthetic is held: drag one to stretch and squeeze between its neighbours, double-click lets go. */
export function Pins(props: { tie: Tie; y: Scale; box: Box; draft: boolean; pins: Pin[] }) {
  const { tie, y, box, draft, pins } = props;
  const held = useRef<number | null>(null);
  const shown = pins.length > 0 ? pins : tie.chain.pins;
  return (
    <g>
      {shown.map((pin, n) => {
        const at = y(placeOf(tie, pin));
        if (!(at >= box.top && at <= box.top + box.height)) return null;
        return (
          <g key={pin.twt}>
            <line x1={box.left} x2={box.left + box.width} y1={at} y2={at} className={css.pinLine} />
            <circle
              cx={box.left + box.width}
              cy={at}
              r={5}
              className={css.pin}
              style={{ cursor: draft ? 'ns-resize' : 'default' }}
              role="slider"
              aria-label={`Pin at ${pin.twt.toFixed(0)} ms`}
              aria-valuenow={Math.round(10 * pin.shiftMs) / 10}
              tabIndex={draft ? 0 : -1}
              onKeyDown={(e) => {
                const by = { ArrowUp: -0.5, ArrowDown: 0.5 }[e.key];
                if (!draft || !by) return;
                e.preventDefault();
                changeTie({
                  stretch: 'pins',
                  pins: shown.map((p, k) => (k === n ? { ...p, shiftMs: p.shiftMs + by } : p)),
                });
              }}
              onPointerDown={(e) => {
                if (!draft) return;
                e.stopPropagation();
                e.currentTarget.setPointerCapture(e.pointerId);
                held.current = n;
              }}
              onPointerMove={(e) => {
                if (held.current !== n) return;
                const top = e.currentTarget.ownerSVGElement?.getBoundingClientRect().top ?? 0;
                const shiftMs = Math.round(2 * (y.invert(e.clientY - top) - pin.twt - tie.chain.shiftMs)) / 2;
                changeTie({ stretch: 'pins', pins: shown.map((p, k) => (k === n ? { ...p, shiftMs } : p)) });
              }}
              onPointerUp={() => {
                held.current = null;
              }}
              onDoubleClick={(e) => {
                e.stopPropagation();
                if (draft) changeTie({ stretch: 'pins', pins: shown.filter((_, k) => k !== n) });
              }}
            >
              <title>{`${figure(pin.shiftMs)} ms over the shift${draft ? '; drag to stretch, double-click to let go' : ''}`}</title>
            </circle>
          </g>
        );
      })}
    </g>
  );
}
