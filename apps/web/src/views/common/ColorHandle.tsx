import type { SeismicLine, Volume } from '@lithagon/core';
import { Popover } from 'radix-ui';
import { type PointerEvent, type ReactNode, useRef } from 'react';
import { setDisplay, useDisplays } from '../../state/displays';
import { useHere } from '../../state/here';
import { displayOf } from '../../state/views/display';
import { DisplayForm } from './DisplayForm';
import css from './view.module.css';

/** Pixels of a drag that double the gain. */
const DOUBLES = 60;

/** A colour bar that is taken hold of: dragged to the right its colours end sooner; a click opens all of its settings. */
export function ColorHandle({ of, children }: { of: Volume | SeismicLine; children: ReactNode }) {
  const here = useHere();
  const displays = useDisplays();
  const from = useRef<{ x: number; gain: number; moved: boolean } | null>(null);
  const drag = (event: PointerEvent) => {
    const held = from.current;
    if (!held || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
    if (Math.abs(event.clientX - held.x) > 3) held.moved = true;
    if (!held.moved) return;
    const gain = held.gain * 2 ** ((event.clientX - held.x) / DOUBLES);
    setDisplay(of, { gain: Math.max(1 / 8, Math.min(8, gain)) }, here);
  };
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`${css.bar} ${css.handle}`}
        aria-label={`Colours of ${of.name}`}
        title="Drag to change the gain; click for all settings"
        onPointerDown={(event) => {
          event.stopPropagation();
          event.currentTarget.setPointerCapture(event.pointerId);
          from.current = { x: event.clientX, gain: displayOf(displays, of).gain, moved: false };
        }}
        onPointerMove={drag}
        onPointerUp={(event) => event.stopPropagation()}
        onClick={(event) => from.current?.moved && event.preventDefault()}
      >
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className={css.popover} side="top" align="start" sideOffset={4}>
          <DisplayForm volume={of} view={here} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
