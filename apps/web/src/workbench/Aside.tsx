import { asLithagonError, type Aside as Unread } from '@lithagon/core';
import { toast } from 'sonner';
import { discardAside, useProject } from '../state/project';
import { Button } from '../ui/Button';
import { download } from '../ui/download';
import css from './Aside.module.css';

/** What of the project could not be read: named with the reason, saved as it is, or thrown away. */
export function Aside({ aside }: { aside: Unread[] }) {
  const name = useProject((s) => s.facts?.name ?? 'project');
  const writer = useProject((s) => s.writer);
  return (
    <details className={css.aside} role="alert" open={aside.length < 4}>
      <summary>
        {aside.length === 1 ? 'One thing' : `${aside.length} things`} in this project could not be read and{' '}
        {aside.length === 1 ? 'is' : 'are'} set aside. All the rest is here.
      </summary>
      <ul>
        {aside.map(({ key, name, why }) => (
          <li key={key}>
            <b>{name}</b> <span>{why}</span>
          </li>
        ))}
      </ul>
      <Button
        small
        onClick={() =>
          download(`${name} set aside.json`, new Blob([JSON.stringify(aside, null, 1)], { type: 'application/json' }))
        }
      >
        Save as it is
      </Button>
      <Button
        small
        disabled={!writer}
        onClick={() => {
          if (
            !confirm(`Throw away what was set aside (${aside.map((a) => a.name).join(', ')})? This cannot be undone.`)
          )
            return;
          discardAside(aside.map(({ key }) => key)).catch((cause) => toast.error(asLithagonError(cause).sentence));
        }}
      >
        Throw away
      </Button>
    </details>
  );
}
