import type { Fault } from '@lithagon/core';
import { beginFault } from '../../actions/draw';
import { pathText } from '../../picture/path';
import { Button } from '../../ui/Button';
import { INK, type MapLayerProps, webKind } from '../define';

/** Sticks as picked; joined along their middles they show the fault's run. */
function FaultOnMap({ object, domain, selected, place }: MapLayerProps<Fault>) {
  if (object.domain !== domain) return null;
  const middle = object.sticks.filter((s) => s.length > 1).map((s) => s[Math.floor(s.length / 2)]);
  return (
    <g fill="none" stroke={object.color ?? 'var(--ink)'}>
      {object.sticks.map((stick, n) => (
        <path key={n} d={pathText(stick.map(([x, y]) => place(x, y)))} strokeWidth={0.8} strokeOpacity={0.6} />
      ))}
      <path d={pathText(middle.map(([x, y]) => place(x, y)))} strokeWidth={selected ? 3.2 : 2.1}>
        <title>{object.name}</title>
      </path>
    </g>
  );
}

export const fault = webKind<Fault>({
  color: INK,
  colored: true,
  actions: [({ object }) => <Button onClick={() => beginFault(object)}>Draw sticks</Button>],
  layers: { map: FaultOnMap },
});
