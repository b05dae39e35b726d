import type { OnSection, SeismicLine, Volume } from '@lithagon/core';
import { useMemo, useRef, useState } from 'react';
import { useCursor } from '../../../state/cursor';
import { useHere } from '../../../state/here';
import { takeTool, useTool } from '../../../state/tool';
import type { PlaneState } from '../../common/hooks';
import type { Frame } from '../frame';
import { placeOf, traceOf, valueAt } from '../geometry';
import type { At } from '../useWindow';
import { brushHands, placeHands } from './bodies';
import { faultHands } from './fault';
import { type Hands, LOOK } from './hands';
import { measureHands } from './measure';
import { pickHands } from './pick';

/** Two presses within this time are a double click. */
const DOUBLE_MS = 400;

/** What hands do on a section: read it out, and what the tool in hand makes of pointer and keys. */
export function useHands(surface: {
  volume: Volume | SeismicLine;
  frame: Frame;
  data: PlaneState | null;
  at(clientX: number, clientY: number): At;
  /** Whether a trial is shown, on which nothing is drawn. */
  trial: boolean;
}) {
  const { volume, frame, data, at, trial } = surface;
  const { line, window, domain, cuts } = frame;
  const here = useHere();
  const tool = useTool((s) => s.tool);
  const [stroke, setStroke] = useState<{ places: OnSection[]; moved: boolean } | null>(null);
  const last = useRef({ ms: Number.NEGATIVE_INFINITY, x: 0, y: 0 });
  const samples = data && !data.coarse ? data.data : null;
  const { first, step, count } = volume.vertical;
  const on = useMemo(
    () => samples && { line, cuts, traces: { data: samples, samples: count, first, step } },
    [samples, line, cuts, count, first, step],
  );
  const hands = (): Hands => {
    if (tool?.kind === 'measure') return measureHands(tool, here, line, domain);
    if (tool?.kind === 'place') return placeHands(tool, line);
    if (tool?.kind === 'body brush') return brushHands(tool, frame, stroke, setStroke);
    // what is interpreted lies in time, on what is really there
    if (domain !== 'twt' || trial) return LOOK;
    if (tool?.kind === 'pick' && on) return pickHands(tool, on, frame, stroke, setStroke);
    if (tool?.kind === 'fault') return faultHands(tool, line);
    return LOOK;
  };
  const now = hands();
  const follow = (trace: number, vertical: number) => {
    const [x, y] = placeOf(line, trace);
    useCursor.setState({
      at: {
        x,
        y,
        vertical,
        domain,
        value: samples ? valueAt(volume, samples, trace, vertical) : null,
        quantity: trial ? 'trial' : volume.quantity,
        unit: volume.unit,
        from: here,
      },
    });
  };
  return {
    on,
    stroke,
    cursor: now.cursor,
    drawing: now !== LOOK,
    move(event: React.PointerEvent) {
      const p = at(event.clientX, event.clientY);
      if (!p.inside) return useCursor.setState({ at: null });
      follow(p.trace, p.vertical);
      // a pen reports more places than the page is drawn in between
      if (event.buttons & 1) for (const each of fine(event)) now.drag?.(at(each.clientX, each.clientY), event);
    },
    down(event: React.PointerEvent) {
      const p = at(event.clientX, event.clientY);
      if (!p.inside || event.button !== 0) return;
      // presses do not say whether they are the second of a double click, which ends what is drawn
      const { ms, x, y } = last.current;
      const double = event.timeStamp - ms < DOUBLE_MS && Math.hypot(event.clientX - x, event.clientY - y) < 5;
      last.current = { ms: double ? Number.NEGATIVE_INFINITY : event.timeStamp, x: event.clientX, y: event.clientY };
      if (double) return;
      if (now.drag) event.currentTarget.setPointerCapture(event.pointerId);
      now.down?.(p, event);
    },
    up(event: React.PointerEvent) {
      if (event.button === 0) now.up?.(at(event.clientX, event.clientY), event);
    },
    end: () => now.end?.(),
    /** The right button. @returns whether it was for the tool in hand */
    turn(event: React.MouseEvent): boolean {
      return now.turn?.(at(event.clientX, event.clientY)) ?? false;
    },
    /** Arrows move the cursor where the view has the focus, P does what a click would, Enter ends what is drawn. */
    key(event: React.KeyboardEvent) {
      const cursor = useCursor.getState().at;
      if (event.key === 'Escape') return takeTool(null);
      if (now !== LOOK && event.key === 'Backspace') return now.back?.();
      if (now !== LOOK && event.key === 'Enter') {
        event.preventDefault();
        return now.end?.();
      }
      if (now !== LOOK && event.key.toLowerCase() === 'p' && cursor && cursor.vertical !== null) {
        event.stopPropagation();
        const [trace] = traceOf(line, cursor.x, cursor.y);
        return now.put?.({ trace, vertical: cursor.vertical, inside: true });
      }
      const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
      if (!by) return;
      event.preventDefault();
      const far = event.shiftKey ? 10 : 1;
      const [from] = cursor ? traceOf(line, cursor.x, cursor.y) : [(window.x0 + window.x1) / 2];
      const trace = Math.max(0, Math.min(line.traces - 1, Math.round(from) + by[0] * far));
      const vertical = (cursor?.vertical ?? (window.y0 + window.y1) / 2) + by[1] * far * step;
      follow(trace, vertical);
    },
  };
}

const fine = (event: React.PointerEvent): { clientX: number; clientY: number }[] => {
  const events = event.nativeEvent?.getCoalescedEvents?.() ?? [];
  return events.length > 0 ? events : [event];
};
