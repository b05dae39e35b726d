import { useLinkedCursor } from '../../common/useLinkedCursor';
import css from '../../common/view.module.css';
import { type Frame, inFrame, scales } from '../frame';
import { traceOf } from '../geometry';

/** Where the pointer is in this view or one that is linked to it. */
export function Cursor({ frame }: { frame: Frame }) {
  const at = useLinkedCursor();
  if (!at) return null;
  const { x, y } = scales(frame);
  const { box, line } = frame;
  const [trace] = traceOf(line, at.x, at.y);
  const px = x(trace);
  // where the pointer is in a view of the other domain, by what turns the one into the other
  const there = at.vertical === null ? Number.NaN : inFrame(frame, at.domain)(trace, at.vertical);
  const py = Number.isNaN(there) ? null : y(there);
  return (
    <g>
      {px >= box.left && px <= box.left + box.width && (
        <line className={css.cursor} x1={px} x2={px} y1={box.top} y2={box.top + box.height} />
      )}
      {py !== null && py >= box.top && py <= box.top + box.height && (
        <line className={css.cursor} y1={py} y2={py} x1={box.left} x2={box.left + box.width} />
      )}
    </g>
  );
}
