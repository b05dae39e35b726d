import type { FluidContacts } from '@lithagon/core';
import { useLabels } from '../../views/common/labels/Labels';
import { scales } from '../../views/section/frame';
import type { SectionLayerProps } from '../define';
import { contactLevels } from './levels';

/** Contacts as level lines across the section, in the colour of the fluid above. */
export function ContactsOnSection({ object, frame, opacity }: SectionLayerProps<FluidContacts>) {
  const { y } = scales(frame);
  const { left, width } = frame.box;
  const levels = contactLevels(object).map((level) => ({ ...level, at: y(level.depth) }));
  useLabels(
    object.id,
    levels.map(({ name, color, at }) => ({
      id: `${object.id} ${name}`,
      text: name,
      color,
      rank: 2,
      anchor: 'end' as const,
      at: [
        [left + width - 6, at - 4],
        [left + width - 6, at + 13],
      ],
    })),
  );
  return (
    <g opacity={opacity} data-object={object.id}>
      {levels.map(({ name, color, at }) => (
        <g key={name}>
          <path d={`M${left} ${at}h${width}`} stroke="#fffdf7" strokeOpacity={0.8} strokeWidth={3.4} />
          <path d={`M${left} ${at}h${width}`} stroke={color} strokeWidth={1.4} strokeDasharray="9 3" />
        </g>
      ))}
    </g>
  );
}
