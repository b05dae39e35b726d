import type { Fault } from '@lithagon/core';
import { useMemo } from 'react';
import { pathText } from '../../picture/path';
import { useLabels } from '../../views/common/labels/Labels';
import { scales } from '../../views/section/frame';
import { faultAlong } from '../../views/section/geometry';
import type { SectionLayerProps } from '../define';
import { drawnColor, faultIn } from './look';

export function FaultOnSection({ object, objects, frame, opacity, selected }: SectionLayerProps<Fault>) {
  const { line, domain, turning } = frame;
  const cuts = useMemo(() => faultAlong(line, faultIn(object, domain, turning)), [line, object, domain, turning]);
  const { x, y } = scales(frame);
  const ends = cuts.map(([a, va, b, vb]): [number, number][] => [
    [x(a), y(va)],
    [x(b), y(vb)],
  ]);
  const d = ends.map((e) => pathText(e)).join('');
  const color = drawnColor(object, objects);
  // beside its upper end that is in sight, or else further down
  const down = ends
    .flat()
    .filter(([, py]) => py >= frame.box.top)
    .sort((a, b) => a[1] - b[1]);
  const at = down.filter((_, n) => n % 3 === 0).map(([px, py]): [number, number] => [px + 6, py + 12]);
  useLabels(object.id, selected && at.length > 0 ? [{ id: object.id, text: object.name, color, at, rank: 3 }] : []);
  return (
    <g fill="none" strokeLinecap="round" data-object={object.id} opacity={opacity}>
      <path d={d} stroke="#fffdf7" strokeOpacity={0.8} strokeWidth={4.6} />
      <path d={d} stroke={color} strokeWidth={selected ? 3.2 : 2.2}>
        <title>{object.name}</title>
      </path>
    </g>
  );
}
