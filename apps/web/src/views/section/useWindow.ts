import type { Domain, SeismicLine, Volume } from '@lithagon/core';
import { useEffect, useMemo, useRef } from 'react';
import { stepLine } from '../../actions/lines';
import { useHere } from '../../state/here';
import { lookAt, useWindowOf } from '../../state/views';
import type { Size } from '../common/hooks';
import type { Window } from '../raster/Raster';
import type { Along } from './useAlong';

/** Room beside the picture of a section for its axes and its colour bar, pixels. */
export const MARGIN = { left: 48, top: 31, right: 9, bottom: 40 };

/** How far a wheel is turned for one line, pixels. */
const TURN = 30;

export interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Where the pointer is: trace and time or depth, and whether it is over the picture. */
export interface At {
  trace: number;
  vertical: number;
  inside: boolean;
}

/** A section as the part of it in view is told of: in numbers that other sections have too. */
type Told = Pick<Along, 'plane' | 'line' | 'joints'>;

/** Parts in view are shared by what they are parts of: lines by their numbers, so that another survey knows them. */
function keysOf(
  shown: Pick<Volume | SeismicLine, 'id' | 'domain'>,
  { plane, joints }: Told,
): [across: string, down: string] {
  const line = joints.length > 0 ? `lines ${joints.map((j) => j.name).join()}` : `line ${shown.id}`;
  return [plane ?? line, shown.domain];
}

const numberAt = ({ plane, line }: Told, trace: number) => (plane ? line.number(trace) : trace);
const traceAt = ({ plane, line }: Told, number: number) =>
  plane ? (number - line.number(0)) / (line.number(1) - line.number(0)) : number;

/** A range kept inside another; the whole of that where they share nothing. */
function within(range: number[] | undefined, low: number, high: number): [number, number] {
  if (range?.length !== 2) return [low, high];
  const [a, b] = [Math.max(low, Math.min(range[0], range[1])), Math.min(high, Math.max(range[0], range[1]))];
  return b > a ? [a, b] : [low, high];
}

/**
 * The part of a section in view, which linked sections share: the wheel steps lines and with Ctrl draws nearer, a drag with
 * Space moves it.
 */
export function useWindow(
  element: HTMLElement | null,
  size: Size,
  whole: Window,
  shown: Pick<Volume | SeismicLine, 'id' | 'domain' | 'vertical'>,
  along: Told,
  /** The same place in the other domain, where something turns it: views of that domain keep in step. */
  other?: { domain: Domain; of(vertical: number): number } | null,
) {
  const here = useHere();
  const [across, down] = keysOf(shown, along);
  const numbers = useWindowOf(across);
  const heights = useWindowOf(down);
  const from = useRef<{ x: number; y: number; window: Window } | null>(null);
  const space = useRef(false);
  const turned = useRef(0);
  const verticalStep = shown.vertical.step;
  const [x0, x1] = within(
    numbers?.map((n) => traceAt(along, n)),
    whole.x0,
    whole.x1,
  );
  const [y0, y1] = within(heights, whole.y0, whole.y1);
  const window = useMemo((): Window => ({ x0, x1, y0, y1 }), [x0, x1, y0, y1]);
  const setZoom = (w: Window) => {
    const there = other ? [other.of(w.y0), other.of(w.y1)] : [];
    lookAt(here, {
      [across]: [numberAt(along, w.x0), numberAt(along, w.x1)],
      [down]: [w.y0, w.y1],
      ...(other && there.every(Number.isFinite) ? { [other.domain]: there } : {}),
    });
  };
  const box: Box = {
    left: MARGIN.left,
    top: MARGIN.top,
    width: Math.max(10, size.width - MARGIN.left - MARGIN.right),
    height: Math.max(10, size.height - MARGIN.top - MARGIN.bottom),
  };
  const at = (clientX: number, clientY: number): At => {
    const rect = element?.getBoundingClientRect();
    const px = clientX - (rect?.left ?? 0) - box.left;
    const py = clientY - (rect?.top ?? 0) - box.top;
    return {
      trace: window.x0 + (px / box.width) * (window.x1 - window.x0),
      vertical: window.y0 + (py / box.height) * (window.y1 - window.y0),
      inside: px >= 0 && py >= 0 && px <= box.width && py <= box.height,
    };
  };
  useEffect(() => {
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      if (!event.ctrlKey) {
        // a touchpad tells of many small turns, a wheel of few large ones
        turned.current += event.deltaMode === 1 ? 40 * event.deltaY : event.deltaY + event.deltaX;
        if (Math.abs(turned.current) < TURN) return;
        stepLine(Math.sign(turned.current), here);
        turned.current = 0;
        return;
      }
      const p = at(event.clientX, event.clientY);
      const f = Math.exp(event.deltaY * 0.0025);
      const part = (lo: number, hi: number, c: number, min: number, max: number): [number, number] => [
        Math.max(min, c + (lo - c) * f),
        Math.min(max, c + (hi - c) * f),
      ];
      const [x0, x1] = part(window.x0, window.x1, p.trace, whole.x0, whole.x1);
      const [y0, y1] = part(window.y0, window.y1, p.vertical, whole.y0, whole.y1);
      if (x1 - x0 > 4 && y1 - y0 > 8 * verticalStep) setZoom({ x0, x1, y0, y1 });
    };
    const key = (event: KeyboardEvent) => {
      if (event.code === 'Space') space.current = event.type === 'keydown';
    };
    element.addEventListener('wheel', wheel, { passive: false });
    // a view may stand in a window of its own
    const page = element.ownerDocument.defaultView ?? globalThis;
    page.addEventListener('keydown', key);
    page.addEventListener('keyup', key);
    return () => {
      element.removeEventListener('wheel', wheel);
      page.removeEventListener('keydown', key);
      page.removeEventListener('keyup', key);
    };
  });
  const drag = {
    /** Begin to move the window, with Space or the middle button. @returns whether the press was for that */
    begin(event: React.PointerEvent, drawing: boolean): boolean {
      const left = event.button === 0 && !space.current;
      if (left) return !drawing;
      if (!space.current && event.button !== 1) return true;
      event.currentTarget.setPointerCapture(event.pointerId);
      from.current = { x: event.clientX, y: event.clientY, window };
      return true;
    },
    /** @returns whether the window is being moved */
    move(event: React.PointerEvent): boolean {
      if (!from.current) return false;
      const { x, y, window: w } = from.current;
      const dx = ((event.clientX - x) / box.width) * (w.x1 - w.x0);
      const dy = ((event.clientY - y) / box.height) * (w.y1 - w.y0);
      const cx = Math.max(w.x1 - whole.x1, Math.min(w.x0 - whole.x0, dx));
      const cy = Math.max(w.y1 - whole.y1, Math.min(w.y0 - whole.y0, dy));
      setZoom({ x0: w.x0 - cx, x1: w.x1 - cx, y0: w.y0 - cy, y1: w.y1 - cy });
      return true;
    },
    /** @returns whether the window was being moved */
    end(): boolean {
      const moved = from.current !== null;
      from.current = null;
      return moved;
    },
  };
  return {
    window,
    box,
    at,
    drag,
    showWhole: () => lookAt(here, { [across]: null, [down]: null, ...(other ? { [other.domain]: null } : {}) }),
  };
}
