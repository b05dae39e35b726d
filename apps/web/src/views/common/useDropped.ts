import type { DragEvent } from 'react';
import { showIn } from '../../actions/contents';
import { useHere } from '../../state/here';
import { useProject } from '../../state/project';
import type { Layered } from './contents';

/** What a dragged object is known by. */
export const DRAGGED = 'application/x-lithagon-object';

/** Takes objects that are dropped on a view into what it shows. */
export function useDropped(kind: Layered) {
  const here = useHere();
  return {
    onDragOver(event: DragEvent) {
      if (event.dataTransfer.types.includes(DRAGGED)) event.preventDefault();
    },
    onDrop(event: DragEvent) {
      const object = useProject.getState().byId.get(event.dataTransfer.getData(DRAGGED));
      if (!object) return;
      event.preventDefault();
      event.stopPropagation();
      showIn(here, kind, object);
    },
  };
}
