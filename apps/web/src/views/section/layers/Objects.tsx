import type { EarthObject } from '@lithagon/core';
import { webKindOf } from '../../../kinds';
import { useProject } from '../../../state/project';
import { useSelection } from '../../../state/selection';
import type { Row } from '../../common/contents';
import type { ShownWell } from '../../common/survey';
import type { Frame } from '../frame';

/** What the list of the section holds, drawn by the layers of their kinds: the first of the list on top. */
export function Objects(props: { rows: Row[]; frame: Frame; objects: EarthObject[]; wells: ShownWell[] }) {
  const { rows, frame, objects, wells } = props;
  const old = useProject((s) => s.old);
  const selected = useSelection((s) => s.object);
  return (
    <>
      {[...rows].reverse().map(({ object, eye, why, color, opacity }) => {
        const Draw = webKindOf(object).layers.section?.Draw;
        if (!Draw || !eye || why) return null;
        return (
          <Draw
            key={object.id}
            {...{ object, objects, frame, color, opacity }}
            domain={frame.domain}
            old={old.has(object.id)}
            selected={selected === object.id}
            well={object.kind === 'well' ? wells.find((w) => w.well.id === object.id) : undefined}
          />
        );
      })}
    </>
  );
}
