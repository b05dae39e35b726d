import { type EarthObject, type Proposal, pathOf, pointAtMd, type Top } from '@lithagon/core';
import { useEffect, useState } from 'react';
import { useCursor } from '../../state/cursor';
import type { Size } from '../common/hooks';
import { changeLogs } from './changeLogs';
import type { WellColumn } from './columns';
import { HEAD, inReach, type Panel } from './layout';
import { deleteTop, paint as paintFacies, setTop } from './tops';
import type { useCarry } from './useCarry';

export type Mode = 'look' | 'pick' | 'paint';

/** What a panel is worked on with. */
export interface Surface {
  element: HTMLElement | null;
  size: Size;
  panel: Panel;
  columns: WellColumn[];
  objects: EarthObject[];
  /** The part of the shared axis in view, and all that there is. */
  window: [number, number];
  whole: [number, number];
  carry: ReturnType<typeof useCarry>;
  setScroll(change: (scroll: number) => number): void;
}

/** What hands do on the panel: scroll and zoom, pick, drag and nudge tops, paint facies, by pointer and by keys. */
export function useHands({ element, size, panel, columns, objects, window, whole, carry, setScroll }: Surface) {
  const [mode, setMode] = useState<Mode>('look');
  const [topName, setTopName] = useState('');
  const [facies, setFacies] = useState('');
  const [chosen, setChosen] = useState<{ well: string; name: string; md: number } | null>(null);
  const [drag, setDrag] = useState<{ well: string; top: Top; md: number; proposal?: Proposal } | null>(null);
  const [stroke, setStroke] = useState<{ well: string; from: number; to: number } | null>(null);

  const at = (event: { clientX: number; clientY: number }) => {
    const rect = element?.getBoundingClientRect();
    const [x, y] = [event.clientX - (rect?.left ?? 0), event.clientY - (rect?.top ?? 0)];
    const well = panel.wells.find((w) => x >= w.left && x <= w.left + w.width);
    const axis = window[0] + ((y - HEAD) / panel.height) * (window[1] - window[0]);
    return { x, y, well, axis, md: well ? well.column.mdAt(axis - well.hung) : Number.NaN };
  };

  useEffect(() => {
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const [a, b] = window;
      if (event.ctrlKey) {
        const { axis } = at(event);
        const f = Math.exp(Math.max(-80, Math.min(80, event.deltaY)) * 0.004);
        const next: [number, number] = [axis + (a - axis) * f, axis + (b - axis) * f];
        if (next[1] - next[0] > 2) changeLogs({ window: next });
        return;
      }
      if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
        const most = Math.max(0, panel.width - size.width + 10);
        setScroll((s) => Math.max(0, Math.min(most, s + event.deltaX + (event.shiftKey ? event.deltaY : 0))));
        return;
      }
      const by = (event.deltaY / panel.height) * (b - a);
      changeLogs({ window: inReach([a + by, b + by], whole) });
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  });

  const follow = (event: React.PointerEvent) => {
    const { well, md } = at(event);
    if (!well || Number.isNaN(md)) return useCursor.setState({ at: null });
    const p = pointAtMd(pathOf(objects, well.column.well), md);
    const [key] = [...well.column.curves.keys()];
    const curve = key ? well.column.curves.get(key) : undefined;
    const value = curve ? curve.values[Math.round((md - curve.firstM) / curve.stepM)] : undefined;
    useCursor.setState({
      at: {
        x: p.x,
        y: p.y,
        vertical: p.tvdss,
        domain: 'depth',
        value: value === undefined || Number.isNaN(value) ? null : value,
        quantity: key ?? '',
        unit: curve?.unit ?? '',
        from: 'logs',
      },
    });
  };

  const move = (event: React.PointerEvent) => {
    const here = at(event);
    if (drag) {
      const well = panel.wells.find((w) => w.column.well.name === drag.well);
      if (well) setDrag({ ...drag, md: well.column.mdAt(here.axis - well.hung) });
      return;
    }
    if (stroke) {
      const well = panel.wells.find((w) => w.column.well.name === stroke.well);
      if (well) setStroke({ ...stroke, to: well.column.mdAt(here.axis - well.hung) });
      return;
    }
    follow(event);
  };
  const up = () => {
    if (drag) {
      if (drag.proposal) carry.nudge(drag.proposal, drag.md);
      else if (Math.abs(drag.md - drag.top.md) > 0.01)
        void setTop(drag.well, { ...drag.top, md: drag.md }, drag.top).then(
          (done) => done && setChosen({ well: drag.well, name: drag.top.name, md: drag.md }),
        );
      setDrag(null);
    }
    if (stroke) {
      if (Math.abs(stroke.to - stroke.from) > 0.1)
        void paintFacies(stroke.well, stroke.from, stroke.to, facies || null);
      setStroke(null);
    }
  };
  const down = (event: React.PointerEvent) => {
    const { well, y, md } = at(event);
    if (!well || y < HEAD || event.button !== 0) return;
    if (mode === 'pick' && topName) {
      void setTop(well.column.well.name, {
        name: topName,
        md,
        confidence: null,
        kind: 'top',
        missingM: null,
        how: 'picked',
      }).then((done) => done && setChosen({ well: well.column.well.name, name: topName, md }));
      return;
    }
    if (mode === 'paint') {
      event.currentTarget.setPointerCapture(event.pointerId);
      setStroke({ well: well.column.well.name, from: md, to: md });
      return;
    }
    setChosen(null);
  };
  const chosenTop = chosen
    ? columns
        .find((c) => c.well.name === chosen.well)
        ?.tops.find((t) => t.name === chosen.name && Math.abs(t.md - chosen.md) < 0.02)
    : undefined;
  const onKey = (event: React.KeyboardEvent) => {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (chosen && chosenTop && (event.key === 'Delete' || event.key === 'Backspace')) {
      event.preventDefault();
      void deleteTop(chosen.well, chosenTop);
      return setChosen(null);
    }
    if (!by) return;
    event.preventDefault();
    if (chosen && chosenTop) {
      const md = chosenTop.md + by * (event.shiftKey ? 5 : 0.5);
      void setTop(chosen.well, { ...chosenTop, md }, chosenTop).then((done) => done && setChosen({ ...chosen, md }));
      return;
    }
    const [a, b] = window;
    changeLogs({ window: inReach([a + by * 0.1 * (b - a), b + by * 0.1 * (b - a)], whole) });
  };

  /** Begin to drag a top or a proposal. */
  const grip = (event: React.PointerEvent, well: string, top: Top, proposal?: Proposal) => {
    if (mode === 'paint' && !proposal) return;
    event.stopPropagation();
    element?.setPointerCapture(event.pointerId);
    if (!proposal) setChosen({ well, name: top.name, md: top.md });
    setDrag({ well, top, md: top.md, proposal });
  };

  return {
    ...{ mode, setMode, topName, setTopName, facies, setFacies },
    ...{ chosen, chosenTop, letGo: () => setChosen(null), drag, stroke, grip },
    on: {
      onKeyDown: onKey,
      onPointerMove: move,
      onPointerDown: down,
      onPointerUp: up,
      onPointerLeave: () => useCursor.setState({ at: null }),
    },
  };
}

export type Hands = ReturnType<typeof useHands>;
