import type { Horizon } from '@lithagon/core';
import { useMemo } from 'react';
import { pathText } from '../../../picture/path';
import { useProject } from '../../../state/project';
import { useSelection } from '../../../state/selection';
import { useArray } from '../../common/hooks';
import { type Frame, inFrame, scales } from '../frame';
import { horizonAlong } from '../geometry';

/** A surface along the section, moved down by so much in its own domain, as the section shows it. */
function useMoved(frame: Frame, id: string | undefined, down: number): [number, number][] {
  const object = useProject((s) => (id ? s.byId.get(id) : undefined));
  const horizon = object?.kind === 'horizon' ? (object as Horizon) : undefined;
  const values = useArray(horizon?.id, horizon?.revision, horizon?.values);
  const { line, domain, turning } = frame;
  const along = useMemo(() => (horizon && values ? horizonAlong(line, horizon, values) : []), [line, horizon, values]);
  const from = horizon?.domain ?? domain;
  return useMemo(() => {
    const turn = inFrame({ line, domain, turning }, from);
    return along.map(([t, v]): [number, number] => [t, turn(t, v + down)]);
  }, [along, down, line, domain, turning, from]);
}

/** The window around a horizon, or between two, that the step being set up looks at. */
export function SetupWindow({ frame }: { frame: Frame }) {
  const setup = useSelection((s) => s.setup);
  const { above, below } = (setup?.params ?? {}) as Record<string, unknown>;
  const windowed = typeof above === 'number' && typeof below === 'number';
  const first = windowed ? (setup?.inputs.horizon ?? setup?.inputs.top)?.[0] : undefined;
  const last = windowed ? (setup?.inputs.base?.[0] ?? first) : undefined;
  const top = useMoved(frame, first, -Number(above));
  const base = useMoved(frame, last, Number(below));
  if (!windowed || top.length === 0 || base.length === 0) return null;
  const { x, y } = scales(frame);
  const drawn = (points: [number, number][]) => pathText(points.map(([t, v]) => [x(t), y(v)]));
  const known = top.flatMap((p, n) => (Number.isNaN(p[1]) || Number.isNaN(base[n]?.[1]) ? [] : [n]));
  const inside = [...known.map((n) => top[n]), ...[...known].reverse().map((n) => base[n])];
  return (
    <g fill="none" data-testid="setup-window">
      <path
        d={pathText(
          inside.map(([t, v]) => [x(t), y(v)]),
          true,
        )}
        fill="#1f766d"
        fillOpacity={0.12}
      />
      {[top, base].map((points, n) => (
        <g key={n === 0 ? 'top' : 'base'}>
          <path d={drawn(points)} stroke="#fffdf7" strokeWidth={3} strokeOpacity={0.8} />
          <path d={drawn(points)} stroke="#1f766d" strokeWidth={1.3} strokeDasharray="5 3" />
        </g>
      ))}
    </g>
  );
}
