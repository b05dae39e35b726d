import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { useDesk } from '../../state/desk';
import { deleteDesk, differences, openDesk, renameDesk, saveDesk } from '../../state/desks';
import { useProject } from '../../state/project';
import { Button } from '../../ui/Button';
import css from './DeskTabs.module.css';

/** Saved desks as tabs: the one in use says when it differs from what was saved. */
export function DeskTabs() {
  const saved = useProject((s) => s.facts?.desks) ?? [];
  const state = useDesk();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const current = saved.find((d) => d.name === state.desk);
  const changed = current ? differences(state, current.state) : [];
  const close = () => {
    setOpen(false);
    setName('');
  };
  return (
    <nav className={css.desks} aria-label="Desks">
      {saved.map((d) => (
        <button
          key={d.name}
          type="button"
          aria-pressed={d === current}
          className={d === current ? css.current : ''}
          onClick={() => openDesk(d.name)}
          title={d === current && changed.length > 0 ? `Differs from what was saved in ${changed.join(', ')}` : d.name}
        >
          {d.name}
          {d === current && changed.length > 0 && <i role="img" aria-label="changed since it was saved" />}
        </button>
      ))}
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger className={css.more} aria-label="Save and manage desks">
          {saved.length === 0 ? 'Desk' : ''} <ChevronDown size={13} aria-hidden="true" />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content className={css.menu} align="start" sideOffset={5}>
            {current ? (
              <>
                <p>
                  {changed.length > 0
                    ? `“${current.name}” differs from what was saved in ${changed.join(', ')}.`
                    : `“${current.name}” is as it was saved.`}
                </p>
                <div className={css.row}>
                  <Button small disabled={changed.length === 0} onClick={() => void saveDesk(current.name).then(close)}>
                    Save
                  </Button>
                  <Button
                    small
                    disabled={changed.length === 0}
                    onClick={() => {
                      openDesk(current.name);
                      close();
                    }}
                  >
                    Back to what was saved
                  </Button>
                  <Button small onClick={() => void deleteDesk(current.name).then(close)}>
                    Delete
                  </Button>
                </div>
              </>
            ) : (
              <p>
                This arrangement is yours alone and survives a reload. Saved under a name it stays as it is until you
                save it again, and goes into parcels.
              </p>
            )}
            <form
              className={css.row}
              onSubmit={(e) => {
                e.preventDefault();
                const wanted = name.trim().slice(0, 40);
                if (wanted) void saveDesk(wanted).then(close);
              }}
            >
              <input
                aria-label="Name of the desk"
                placeholder="name"
                value={name}
                onChange={(e) => setName(e.target.value)}
              />
              <Button small main type="submit" disabled={name.trim() === ''}>
                Save as
              </Button>
              {current && (
                <Button
                  small
                  disabled={name.trim() === ''}
                  onClick={() => void renameDesk(current.name, name.trim().slice(0, 40)).then(close)}
                >
                  Rename
                </Button>
              )}
            </form>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </nav>
  );
}
