import type { Domain } from '@lithagon/core';
import { useRef, useState } from 'react';
import type { PickedSlice } from '../../../actions/picking/slice';
import { useCursor } from '../../../state/cursor';
import { useHere } from '../../../state/here';
import { takeTool, useTool } from '../../../state/tool';
import type { Size } from '../../common/hooks';
import type { ShownWell } from '../../common/survey';
import { type MapFrame, toEarth } from '../frame';
import type { Hands } from './hands';
import { lineHands } from './line';
import { measureHands } from './measure';
import { pickHands, type Stroke } from './pick';
import { ringHands } from './ring';
import { wellsHands } from './wells';

/** Two presses within this time, and so near, are a double click. */
const [DOUBLE_MS, NEAR] = [400, 5];

/** What hands do on a map: move it, read it out, go to places, and what the tool in hand makes of them. */
export function useHands(surface: {
  element: HTMLElement | null;
  frame: MapFrame | null;
  size: Size;
  domain: Domain;
  wells: ShownWell[];
  /** The slice that picks are made on, where one is shown. */
  picked: PickedSlice | null;
  /** Move the map. */
  setFrame(frame: MapFrame | null): void;
  /** Put the cursor at a place. */
  follow(x: number, y: number): void;
  verticalAt(x: number, y: number): number | null;
  /** A click with no tool in hand. */
  goThere(x: number, y: number): void;
}) {
  const { element, frame, size, domain, wells } = surface;
  const here = useHere();
  const tool = useTool((s) => s.tool);
  const [stroke, setStroke] = useState<Stroke>([]);
  const perPixel = frame?.perPixel ?? 1;
  const hands = (): Hands | null => {
    if (!tool || !frame) return null;
    if (tool.kind === 'pick')
      return surface.picked ? pickHands(tool, surface.picked, perPixel, stroke, setStroke) : null;
    if (tool.kind === 'erase' || tool.kind === 'area') return ringHands(tool, perPixel);
    if (tool.kind === 'wells') return wellsHands(wells, perPixel);
    if (tool.kind === 'line') return lineHands(tool, wells, perPixel);
    if (tool.kind === 'measure') return measureHands(tool, here, domain, surface.verticalAt);
    return null;
  };
  const now = hands();
  const press = useRef<{ x: number; y: number; frame: MapFrame; moved: boolean } | null>(null);
  const last = useRef({ ms: Number.NEGATIVE_INFINITY, x: 0, y: 0 });
  const at = (event: React.PointerEvent | React.MouseEvent) => {
    const rect = element?.getBoundingClientRect();
    const [x, y] = frame
      ? toEarth(frame, size, event.clientX - (rect?.left ?? 0), event.clientY - (rect?.top ?? 0))
      : [0, 0];
    return { x, y, event };
  };
  return {
    drawing: now !== null,
    stroke,
    down(event: React.PointerEvent) {
      if (!frame || event.button === 2) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      const { ms, x, y } = last.current;
      const double =
        now?.end !== undefined &&
        event.timeStamp - ms < DOUBLE_MS &&
        Math.hypot(event.clientX - x, event.clientY - y) < NEAR;
      last.current = { ms: double ? Number.NEGATIVE_INFINITY : event.timeStamp, x: event.clientX, y: event.clientY };
      if (double) return;
      if (now?.down && event.button === 0) now.down(at(event));
      press.current = { x: event.clientX, y: event.clientY, frame, moved: false };
    },
    move(event: React.PointerEvent) {
      if (!frame) return;
      const held = press.current;
      if (!held) return surface.follow(at(event).x, at(event).y);
      const [dx, dy] = [event.clientX - held.x, event.clientY - held.y];
      if (Math.hypot(dx, dy) > 3) held.moved = true;
      if (now?.drag) return now.drag(at(event));
      if (held.moved)
        surface.setFrame({ ...held.frame, x: held.frame.x - dx * perPixel, y: held.frame.y + dy * perPixel });
    },
    up(event: React.PointerEvent) {
      const held = press.current;
      press.current = null;
      if (!held) return;
      const place = at(event);
      if (now?.up) return now.up(place);
      if (held.moved || event.button !== 0) return;
      if (now) now.click?.(place);
      else surface.goThere(place.x, place.y);
    },
    /** The right button. @returns whether it was for the tool in hand */
    turn(event: React.MouseEvent): boolean {
      now?.turn?.(at(event));
      return now?.turn !== undefined;
    },
    double() {
      if (now) now.end?.();
      else surface.setFrame(null);
    },
    /** Arrows move the cursor, P does what a click would, Enter ends what is drawn, Backspace takes the last corner back. */
    key(event: React.KeyboardEvent) {
      if (!frame) return;
      if (event.key === 'Escape') return takeTool(null);
      const cursor = useCursor.getState().at ?? { x: frame.x, y: frame.y };
      if (now && event.key === 'Enter') {
        event.preventDefault();
        return now.end?.();
      }
      if (now && event.key === 'Backspace') return now.back?.();
      if (now && event.key.toLowerCase() === 'p') {
        event.stopPropagation();
        return now.click?.({ x: cursor.x, y: cursor.y, event });
      }
      const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
      if (!by) return;
      event.preventDefault();
      const far = (event.shiftKey ? 40 : 8) * perPixel;
      surface.follow(cursor.x + by[0] * far, cursor.y + by[1] * far);
    },
  };
}
