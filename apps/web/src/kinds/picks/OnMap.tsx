import { type Picks, turnerOf } from '@lithagon/core';
import { useConversion } from '../../state/conversion';
import { useTool } from '../../state/tool';
import { surfaceAt } from '../../views/map/surface';
import type { MapLayerProps } from '../define';

/** Picks from above, those on the slice or surface that is shown as diamonds, filled where they are being made. */
export function PicksOnMap({ object, domain, selected, opacity, size, surface, place }: MapLayerProps<Picks>) {
  const tool = useTool((s) => (s.tool?.kind === 'pick' && s.tool.id === object.id ? s.tool : null));
  const model = useConversion((s) => s.model);
  const turn = model && domain !== 'age' && domain !== object.domain ? turnerOf(model, domain) : null;
  const ink = object.color ?? '#1f766d';
  const near = tool && tool.how !== 'free-hand' ? tool.snapMs : NEAR_MS;
  const [on, off]: [number, number][][] = [[], []];
  for (const [x, y, time] of object.points) {
    const at = place(x, y);
    if (at[0] < 0 || at[1] < 0 || at[0] > size.width || at[1] > size.height) continue;
    const level = surface ? surfaceAt(surface, x, y) : Number.NaN;
    (Math.abs((turn ? turn(x, y, time) : time) - level) <= near ? on : off).push(at);
  }
  return (
    <g data-object={object.id} opacity={opacity} data-picks={object.name}>
      <path
        d={off.map(([x, y]) => `M${x} ${y}h0`).join('')}
        stroke={ink}
        strokeWidth={selected || tool ? 3 : 2}
        strokeLinecap="round"
      >
        <title>{object.name}</title>
      </path>
      <path
        d={on.map(([x, y]) => `M${x - 4} ${y}L${x} ${y - 4}L${x + 4} ${y}L${x} ${y + 4}Z`).join('')}
        data-on-slice={on.length}
        fill={tool ? ink : '#fffdf7'}
        stroke={tool ? '#fffdf7' : ink}
        strokeWidth={1.3}
      >
        <title>{object.name}</title>
      </path>
    </g>
  );
}

/** Picks so near to what a map shows are on it, ms. */
const NEAR_MS = 4;
