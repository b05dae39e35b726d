import type { Horizon } from '@lithagon/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { pageOf, turnPages, usePages } from '../../state/pages';
import { IconButton } from '../../ui/Button';
import css from './view.module.css';

/** Turns through a stack of horizons, one in every view at a time. */
export function Pager({ stack, onTurn }: { stack: Horizon[]; onTurn?(page: Horizon): void }) {
  usePages();
  const page = pageOf(stack);
  const at = stack.indexOf(page);
  const turn = (by: number) => {
    const next = turnPages(stack, by);
    onTurn?.(next);
  };
  return (
    <fieldset className={css.pager} aria-label="Pages of the stack">
      <IconButton label="Younger page" disabled={at === 0} onClick={() => turn(-1)}>
        <ChevronLeft size={14} />
      </IconButton>
      <output title={page.name}>
        {at + 1} of {stack.length}
      </output>
      <IconButton label="Older page" disabled={at === stack.length - 1} onClick={() => turn(1)}>
        <ChevronRight size={14} />
      </IconButton>
    </fieldset>
  );
}
