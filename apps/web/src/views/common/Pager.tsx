import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type Page, pageOf, turnPages, usePages } from '../../state/pages';
import { IconButton } from '../../ui/Button';
import css from './view.module.css';

/** Turns through a series of horizons or realizations, one in every view at a time. */
export function Pager({ series }: { series: Page[] }) {
  usePages();
  const page = pageOf(series);
  const at = series.indexOf(page);
  const [before, after] =
    page.kind === 'volume' ? ['Realization before', 'Next realization'] : ['Younger page', 'Older page'];
  return (
    <fieldset className={css.pager} aria-label="Pages of the series">
      <IconButton label={before} disabled={at === 0} onClick={() => turnPages(series, -1)}>
        <ChevronLeft size={14} />
      </IconButton>
      <output title={page.name}>
        {at + 1} of {series.length}
      </output>
      <IconButton label={after} disabled={at === series.length - 1} onClick={() => turnPages(series, 1)}>
        <ChevronRight size={14} />
      </IconButton>
    </fieldset>
  );
}
