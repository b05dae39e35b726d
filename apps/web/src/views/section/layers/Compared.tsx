import type { SeismicLine, Volume } from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import { useDisplays } from '../../../state/displays';
import type { Compare } from '../../../state/views';
import { displayOf } from '../../../state/views/display';
import type { PlaneState } from '../../common/hooks';
import { lookOf } from '../../common/look';
import type { FieldLook } from '../../raster/field';
import { Raster } from '../../raster/Raster';
import type { Frame } from '../frame';
import { type Along, useOther } from '../useAlong';
import { useTurnedSamples } from '../useTurned';
import css from './Compared.module.css';
import { differenceOf, percentileOf } from './difference';

/** How a difference is drawn: to both sides alike, to where a part of its samples lie. */
export const differenceLook = (own: FieldLook, end: number): FieldLook => ({ ...own, low: -end, high: end });

/**
 * Another volume against the one that a section shows: to the right of an edge that is dragged, in turns with it, or what the
 * first has more than it.
 */
export function Compared(props: {
  compare: Compare;
  other: Volume;
  shown: Volume | SeismicLine;
  samples: PlaneState;
  along: Along;
  frame: Frame;
  look: FieldLook;
}) {
  const { compare, other, shown, samples, along, frame, look } = props;
  const displays = useDisplays();
  const own = useOther(other, shown, along);
  const turned = useTurnedSamples(other, frame.line, own, frame.domain, frame.turning);
  const second = turned?.samples ?? null;
  const vertical = turned?.vertical ?? other.vertical;
  const { box, line, window } = frame;
  const [turn, setTurn] = useState(false);
  const { mode, perSecond } = compare;
  useEffect(() => {
    if (mode !== 'flicker') return;
    const timer = setInterval(() => setTurn((t) => !t), 1000 / perSecond);
    return () => clearInterval(timer);
  }, [mode, perSecond]);
  const difference = useMemo(() => {
    if (mode !== 'difference' || !second) return null;
    const data = differenceOf(samples.data, shown.vertical, second.data, vertical);
    return { plane: { key: `${samples.key} − ${second.key}`, data, index: 0 }, end: percentileOf(data, compare.clip) };
  }, [mode, samples, second, shown.vertical, vertical, compare.clip]);
  if (!second) return null;
  const drawn = { traces: line.traces, window, box };
  if (mode === 'difference')
    return difference ? (
      <Raster
        name="difference"
        {...drawn}
        plane={difference.plane}
        vertical={shown.vertical}
        look={differenceLook(look, difference.end)}
      />
    ) : null;
  const raster = (
    <Raster
      name="compared"
      {...drawn}
      plane={second}
      vertical={vertical}
      look={lookOf(other, displayOf(displays, other))}
    />
  );
  if (mode === 'flicker')
    return (
      <>
        <div style={{ visibility: turn ? 'visible' : 'hidden' }}>{raster}</div>
        <span className={css.name} style={{ left: box.left + 8, top: box.top + 6 }} role="status">
          {turn ? other.name : shown.name}
        </span>
      </>
    );
  const edge = box.left + compare.at * box.width;
  return (
    <>
      <div className={css.part} style={{ clipPath: `inset(0 0 0 ${edge}px)` }}>
        {raster}
      </div>
      <span className={css.name} style={{ right: `calc(100% - ${edge - 8}px)`, top: box.top + 6 }}>
        {shown.name}
      </span>
      <span className={css.name} style={{ left: edge + 8, top: box.top + 6 }}>
        {other.name}
      </span>
    </>
  );
}

/** The edge between two volumes, dragged or moved by arrows. */
export function SwipeEdge(props: {
  compare: Compare;
  names: [string, string];
  box: Frame['box'];
  onChange(change: Partial<Compare>): void;
}) {
  const { compare, names, box, onChange } = props;
  const set = (at: number) => onChange({ at: Math.max(0, Math.min(1, at)) });
  return (
    <div
      className={css.edge}
      role="slider"
      tabIndex={0}
      aria-label={`Edge between ${names[0]} and ${names[1]}`}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(100 * compare.at)}
      style={{ left: box.left + compare.at * box.width - 6, top: box.top, height: box.height }}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => {
        if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
        const within = event.currentTarget.parentElement?.getBoundingClientRect();
        if (within) set((event.clientX - within.left - box.left) / box.width);
      }}
      onKeyDown={(event) => {
        const by = { ArrowLeft: -0.02, ArrowRight: 0.02 }[event.key];
        if (!by) return;
        event.preventDefault();
        set(compare.at + by);
      }}
    />
  );
}
