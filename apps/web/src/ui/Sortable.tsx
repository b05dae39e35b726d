import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';
import css from './ui.module.css';

/**
 * A list whose items are dragged into another order by their handles; Space takes hold of one by keyboard, arrows move it.
 * @param onMove told which item goes to the place of which other
 */
export function Sortable(props: { ids: string[]; onMove(from: number, to: number): void; children: ReactNode }) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    props.onMove(props.ids.indexOf(String(active.id)), props.ids.indexOf(String(over.id)));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={end}>
      <SortableContext items={props.ids} strategy={verticalListSortingStrategy}>
        {props.children}
      </SortableContext>
    </DndContext>
  );
}

/** An item of such a list, with the handle that it is dragged by. */
export function SortableItem(props: {
  id: string;
  label: string;
  className?: string;
  children(handle: ReactNode): ReactNode;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: props.id,
  });
  return (
    <div
      ref={setNodeRef}
      className={`${props.className ?? ''} ${isDragging ? css.dragged : ''}`}
      style={{ transform: transform ? `translateY(${transform.y}px)` : undefined, transition }}
    >
      {props.children(
        <button
          type="button"
          ref={setActivatorNodeRef}
          className={css.handle}
          {...attributes}
          {...listeners}
          aria-label={`Drag ${props.label} to another place`}
          title="Drag to another place"
        >
          <GripVertical size={13} />
        </button>,
      )}
    </div>
  );
}
