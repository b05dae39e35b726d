import type { ReactNode } from 'react';
import css from './Tie.module.css';

/** One chart or table of the strip below the tracks. */
export function StripPlot({ title, note, children }: { title: string; note?: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what is longer than the strip is scrolled by keys
    <figure className={css.plot} tabIndex={0}>
      <figcaption>
        {title} {note && <small>{note}</small>}
      </figcaption>
      {children}
    </figure>
  );
}
