import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { redo, undo, useHistory } from '../state/history';
import css from './UndoList.module.css';

/** Edits that are listed to each side. */
const MOST = 20;

/** What was done, the last first, and what was taken back: one goes to any of it at once. */
export function UndoList() {
  const { done, undone } = useHistory();
  if (done.length + undone.length === 0) return null;
  const again = undone.slice(-MOST);
  const back = done.slice(-MOST).reverse();
  const times = async (count: number, each: () => Promise<void>) => {
    for (let n = 0; n < count; n++) await each();
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        className={css.trigger}
        aria-label="Edits, to go back to"
        title="Go back to a point of what was done"
      >
        <ChevronDown size={12} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={css.list} align="end" sideOffset={4}>
          {again.map((edit, n) => (
            <DropdownMenu.Item
              key={`again ${n}`}
              className={`${css.item} ${css.again}`}
              onSelect={() => void times(again.length - n, redo)}
            >
              {edit.name}
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Label className={css.now}>now</DropdownMenu.Label>
          {back.map((edit, n) => (
            <DropdownMenu.Item key={`back ${n}`} className={css.item} onSelect={() => void times(n + 1, undo)}>
              {edit.name}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
