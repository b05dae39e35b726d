import type { Entry } from './entries';
import css from './LoadSheet.module.css';

/** Other files that may hold parts of the same volume; those that look like it say so. */
export function Parts(props: {
  entry: Entry;
  candidates: Entry[];
  alike(entry: Entry): boolean;
  onJoin(part: Entry, joined: boolean): void;
}) {
  const { entry, candidates, alike, onJoin } = props;
  const shown = candidates.filter((e) => alike(e) || entry.beside.includes(e.file));
  if (shown.length === 0) return null;
  return (
    <section className={css.questions} aria-label="Parts of one volume">
      <p className={css.hint}>Lines of these files lie beside those of this one. Join them as parts of one volume:</p>
      {shown.map((e) => (
        <label key={e.file.name} className={css.check}>
          <input
            type="checkbox"
            checked={entry.beside.includes(e.file)}
            onChange={(event) => onJoin(e, event.target.checked)}
          />
          {e.file.name}
        </label>
      ))}
    </section>
  );
}
