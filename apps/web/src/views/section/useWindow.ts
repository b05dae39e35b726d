import { useEffect, useRef, useState } from 'react';
import { stepLine } from '../../actions/lines';
import type { Size } from '../common/hooks';
import type { Window } from '../raster/Raster';

/** Room beside the picture of a section for its axes and its colour bar, pixels. */
export const MARGIN = { left: 48, top: 31, right: 9, bottom: 40 };

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

/** The part of a section in view: the wheel steps lines and with Ctrl draws nearer, a drag with Space moves it. */
export function useWindow(element: HTMLElement | null, size: Size, whole: Window, verticalStep: number) {
  const [zoom, setZoom] = useState<Window | null>(null);
  const from = useRef<{ x: number; y: number; window: Window } | null>(null);
  const space = useRef(false);
  // a line with fewer traces is shown whole
  const window = zoom && zoom.x1 <= whole.x1 + 1e-6 ? zoom : whole;
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
        stepLine(event.deltaY > 0 || event.deltaX > 0 ? 1 : -1);
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
    addEventListener('keydown', key);
    addEventListener('keyup', key);
    return () => {
      element.removeEventListener('wheel', wheel);
      removeEventListener('keydown', key);
      removeEventListener('keyup', key);
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
    end() {
      from.current = null;
    },
  };
  return { window, box, at, drag, showWhole: () => setZoom(null) };
}
