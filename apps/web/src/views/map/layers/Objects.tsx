import type { Domain, EarthObject } from '@lithagon/core';
import { webKindOf } from '../../../kinds';
import { useSelection } from '../../../state/selection';
import type { Row } from '../../common/contents';
import type { Size } from '../../common/hooks';
import type { ShownWell } from '../../common/survey';
import type { Surface } from '../surface';

/** What the list of the map holds, drawn by the layers of their kinds: the first of the list on top. */
export function Objects(props: {
  rows: Row[];
  objects: EarthObject[];
  wells: ShownWell[];
  size: Size;
  domain: Domain;
  surface: Surface | null;
  place(x: number, y: number): [number, number];
}) {
  const { rows, objects, wells, size, domain, surface, place } = props;
  const selected = useSelection((s) => s.object);
  return (
    <>
      {[...rows].reverse().map(({ object, eye, why, opacity }) => {
        const Draw = webKindOf(object).layers.map?.Draw;
        if (!Draw || !eye || why) return null;
        return (
          <Draw
            key={object.id}
            {...{ object, objects, size, domain, surface, place, opacity }}
            selected={selected === object.id}
            well={object.kind === 'well' ? wells.find((w) => w.well.id === object.id) : undefined}
          />
        );
      })}
    </>
  );
}
