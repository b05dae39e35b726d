import type { Horizon } from '@lithagon/core';
import { useMemo } from 'react';
import { pathText } from '../../picture/path';
import { useArray } from '../../views/common/hooks';
import { useLabels } from '../../views/common/labels/Labels';
import { cutAt } from '../../views/section/cuts';
import { inFrame, scales } from '../../views/section/frame';
import { horizonAlong } from '../../views/section/geometry';
import { placesAlong } from '../../views/section/layers/labelPlaces';
import type { SectionLayerProps } from '../define';

/** A horizon along the section, with gaps at faults; one that is out of date is broken, and says so. */
export function HorizonOnSection({ object, frame, color, old, opacity, selected }: SectionLayerProps<Horizon>) {
  const values = useArray(object.id, object.revision, object.values);
  const { line, cuts, box, domain, turning } = frame;
  const along = useMemo(() => {
    if (!values) return [];
    const turn = inFrame({ line, domain, turning }, object.domain);
    const own = horizonAlong(line, object, values);
    return cutAt(
      own.map(([t, v]) => [t, turn(t, v)]),
      cuts,
    );
  }, [line, object, values, cuts, domain, turning]);
  const { x, y } = scales(frame);
  const points = along.map(([t, v]): [number, number] => [x(t), y(v)]);
  const at = placesAlong(points, box.left, box.left + box.width).slice(0, 40);
  const text = old ? `${object.name}, out of date` : object.name;
  useLabels(object.id, at.length > 0 ? [{ id: object.id, text, color, at, rank: selected ? 3 : 2 }] : []);
  const d = pathText(points);
  return (
    <g fill="none" strokeLinejoin="round" data-object={object.id} opacity={opacity}>
      <path d={d} stroke="#fffdf7" strokeOpacity={0.85} strokeWidth={3.6} />
      <path d={d} stroke={color} strokeWidth={selected ? 2.6 : 1.6} strokeDasharray={old ? '5 3' : undefined} />
    </g>
  );
}
