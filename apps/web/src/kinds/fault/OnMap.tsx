import { type Fault, meshOfSticks } from '@lithagon/core';
import { useMemo } from 'react';
import { pathText } from '../../picture/path';
import { useConversion } from '../../state/conversion';
import { faultTrace } from '../../views/map/surface';
import type { MapLayerProps } from '../define';
import { drawnColor, faultIn } from './look';

/** A fault where it meets the horizon that is shown; else its sticks as picked, joined along their middles. */
export function FaultOnMap({ object, objects, domain, selected, opacity, surface, place }: MapLayerProps<Fault>) {
  const model = useConversion((s) => s.model);
  const trace = useMemo(
    () => (surface ? faultTrace(meshOfSticks(faultIn(object, domain, model && { model }).sticks), surface) : []),
    [object, surface, domain, model],
  );
  const onSurface = trace.length > 0;
  const middle = object.sticks.filter((s) => s.length > 1).map((s) => s[Math.floor(s.length / 2)]);
  const run = onSurface
    ? trace.map((piece) => pathText(piece.map((p) => place(...p)))).join('')
    : pathText(middle.map(([x, y]) => place(x, y)));
  return (
    <g fill="none" stroke={drawnColor(object, objects)} opacity={opacity} data-object={object.id} strokeLinecap="round">
      {!onSurface &&
        object.sticks.map((stick, n) => (
          <path key={n} d={pathText(stick.map(([x, y]) => place(x, y)))} strokeWidth={0.8} strokeOpacity={0.6} />
        ))}
      <path d={run} stroke="#fffdf7" strokeOpacity={0.8} strokeWidth={selected ? 5 : 3.8} />
      <path
        d={run}
        strokeWidth={selected ? 3 : 2}
        strokeDasharray={onSurface ? undefined : '5 3'}
        data-testid={onSurface ? 'fault-trace' : undefined}
      >
        <title>{object.name}</title>
      </path>
    </g>
  );
}
