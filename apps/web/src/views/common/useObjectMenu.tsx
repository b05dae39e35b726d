import type { EarthObject } from '@lithagon/core';
import { type MouseEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { toggleIn } from '../../actions/contents';
import { showObject } from '../../actions/show';
import { webKindOf } from '../../kinds';
import { useHere } from '../../state/here';
import { useProject } from '../../state/project';
import { select } from '../../state/selection';
import css from './view.module.css';

/** How near to a line on the screen the pointer counts as on it, pixels. */
const NEAR = 6;

/** The object drawn under a place of a picture: what is on top first. */
export function objectAt(svg: SVGSVGElement | null, clientX: number, clientY: number): string | null {
  if (!svg) return null;
  const frame = svg.getBoundingClientRect();
  const [x, y] = [clientX - frame.left, clientY - frame.top];
  for (const group of [...svg.querySelectorAll<SVGGElement>('[data-object]')].reverse()) {
    const shapes = group.querySelectorAll<SVGGeometryElement>('path, circle, polygon');
    const all = group instanceof SVGGeometryElement ? [group] : shapes;
    for (const shape of all) {
      const width = shape.style.strokeWidth;
      shape.style.strokeWidth = String(2 * NEAR);
      const hit = shape.isPointInStroke?.(new DOMPoint(x, y)) ?? false;
      shape.style.strokeWidth = width;
      if (hit) return group.dataset.object ?? null;
    }
  }
  return null;
}

/** What can be done with an object where it is drawn: by the right button on it. */
export function useObjectMenu(): { open(event: MouseEvent, id: string | null): void; element: ReactNode } {
  const here = useHere();
  const [at, setAt] = useState<{ x: number; y: number; id: string } | null>(null);
  const object = useProject((s) => (at ? s.byId.get(at.id) : undefined));
  const menu = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!at) return;
    menu.current?.querySelector('button')?.focus();
    const close = (event: Event) => {
      if (event instanceof KeyboardEvent ? event.key === 'Escape' : !menu.current?.contains(event.target as Node))
        setAt(null);
    };
    addEventListener('pointerdown', close);
    addEventListener('keydown', close);
    return () => {
      removeEventListener('pointerdown', close);
      removeEventListener('keydown', close);
    };
  }, [at]);
  const act = (run: (o: EarthObject) => void) => () => {
    if (object) run(object);
    setAt(null);
  };
  return {
    open(event, id) {
      const host = event.currentTarget.getBoundingClientRect();
      setAt(id ? { x: event.clientX - host.left, y: event.clientY - host.top, id } : null);
    },
    element: at && object && (
      <div
        ref={menu}
        role="menu"
        aria-label={object.name}
        tabIndex={-1}
        className={css.objectMenu}
        style={{ left: at.x, top: at.y }}
        onKeyDown={(event) => {
          const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
          if (!by) return;
          event.preventDefault();
          const items = [...(menu.current?.querySelectorAll('button') ?? [])];
          const now = items.indexOf(document.activeElement as HTMLButtonElement);
          items[(now + by + items.length) % items.length]?.focus();
        }}
      >
        <p className={css.popTitle}>{object.name}</p>
        <button type="button" role="menuitem" className={css.menuAct} onClick={act((o) => select(o.id))}>
          Open its sheet
        </button>
        <button type="button" role="menuitem" className={css.menuAct} onClick={act((o) => toggleIn(here, o))}>
          Hide it here
        </button>
        {webKindOf(object).show && (
          <button type="button" role="menuitem" className={css.menuAct} onClick={act(showObject)}>
            Show in its view
          </button>
        )}
      </div>
    ),
  };
}
