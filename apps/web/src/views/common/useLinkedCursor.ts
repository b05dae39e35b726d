import { useCursor } from '../../state/cursor';
import { useDesk } from '../../state/desk';
import { useHere } from '../../state/here';
import { linked } from '../../state/views';

/** The cursor, where it is in this view or in one that is linked to it. */
export function useLinkedCursor() {
  const here = useHere();
  const at = useCursor((s) => s.at);
  const follows = useDesk((s) => at !== null && linked(s, here, at.from));
  return follows ? at : null;
}
