import { useHere } from '../../../state/here';
import { useLinkedCursor } from '../../common/useLinkedCursor';

/** Where the pointer is in a view that is linked to the map. */
export function Cursor({ place }: { place(x: number, y: number): [number, number] }) {
  const at = useLinkedCursor();
  const here = useHere();
  if (!at || at.from === here) return null;
  const [x, y] = place(at.x, at.y);
  return (
    <g stroke="var(--verdigris)" strokeWidth={1.4}>
      <line x1={x - 7} x2={x + 7} y1={y} y2={y} />
      <line x1={x} x2={x} y1={y - 7} y2={y + 7} />
    </g>
  );
}
