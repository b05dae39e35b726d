import type { Horizon } from '@lithagon/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { pageOf, turnPages, usePages } from '../../state/pages';
import { IconButton } from '../../ui/Button';
import css from './view.module.css';

/** Turns through a series of horizons, one in every view at a time. */
export function Pager({ series }: { series: Horizon[] }) {
  usePages();
  const page = pageOf(series);
  const at = series.indexOf(page);
  return (
    <fieldset className={css.pager} aria-label="Pages of the series">
      <IconButton label="Younger page" disabled={at === 0} onClick={() => turnPages(series, -1)}>
        <ChevronLeft size={14} />
      </IconButton>
      <output title={page.name}>
        {at + 1} of {series.length}
      </output>
      <IconButton label="Older page" disabled={at === series.length - 1} onClick={() => turnPages(series, 1)}>
        <ChevronRight size={14} />
      </IconButton>
    </fieldset>
  );
}
