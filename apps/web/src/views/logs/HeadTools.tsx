import { ChevronLeft, ChevronRight, Star, X } from 'lucide-react';
import css from './Logs.module.css';
import type { WellBox } from './layout';

/** What can be done to a well in its heading: trust its tops, move it, take it out. */
export function HeadTools(props: {
  well: WellBox;
  first: boolean;
  last: boolean;
  trusted: boolean;
  onTrust(): void;
  onMove(by: -1 | 1): void;
  onRemove(): void;
}) {
  const { well, first, last, trusted, onTrust, onMove, onRemove } = props;
  const { name } = well.column.well;
  return (
    <div className={css.headTools} style={{ left: well.left + well.width - 82 }}>
      <button
        type="button"
        aria-label={`Trust the tops of ${name}`}
        title="Trusted: its tops are correlated to the others"
        aria-pressed={trusted}
        onClick={onTrust}
      >
        <Star size={13} fill={trusted ? 'currentColor' : 'none'} />
      </button>
      <button type="button" aria-label={`Move ${name} left`} disabled={first} onClick={() => onMove(-1)}>
        <ChevronLeft size={14} />
      </button>
      <button type="button" aria-label={`Move ${name} right`} disabled={last} onClick={() => onMove(1)}>
        <ChevronRight size={14} />
      </button>
      <button type="button" aria-label={`Take ${name} out`} onClick={onRemove}>
        <X size={13} />
      </button>
    </div>
  );
}
