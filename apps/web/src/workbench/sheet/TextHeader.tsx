import type { Volume } from '@lithagon/core';
import css from './Sheet.module.css';

/** The text header that a volume came with. */
export function TextHeader({ object }: { object: Volume }) {
  if (!object.text) return null;
  return (
    <details className={css.text}>
      <summary>Text header</summary>
      <pre>{object.text.join('\n').trimEnd()}</pre>
    </details>
  );
}
