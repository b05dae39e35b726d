import { asLithagonError } from '@lithagon/core/kept';
import * as Comlink from 'comlink';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { runJob } from '../compute/pool';
import { deleteProject, duplicateProject, listProjects, type ProjectEntry, renameProject } from '../storage/projects';
import { Button, IconButton } from '../ui/Button';
import { ago, spoken } from '../ui/dates';
import { download } from '../ui/download';
import { formatBytes } from '../ui/format';
import css from './Start.module.css';

/** Projects kept in this browser, each with its picture, size and date, and what can be done to it as a whole. */
export function ProjectList(props: {
  projects: ProjectEntry[];
  onChange(projects: ProjectEntry[]): void;
  onProblem(sentence: string): void;
}) {
  const { projects, onChange, onProblem } = props;
  const [busy, setBusy] = useState('');
  const [renaming, setRenaming] = useState('');
  const work = (what: string, job: () => Promise<void>) => {
    setBusy(what);
    job()
      .catch((cause) => onProblem(`${what}: ${asLithagonError(cause).sentence}`))
      .then(listProjects)
      .then(onChange)
      .finally(() => setBusy(''));
  };
  return (
    <section>
      <h2>In this browser</h2>
      {busy && <p role="status">{busy} …</p>}
      <ul className={css.projects}>
        {projects.map((p) => (
          <li key={p.id}>
            {p.picture ? <img src={p.picture} alt="" /> : <i />}
            <div>
              {renaming === p.id ? (
                <input
                  aria-label={`New name of ${p.name}`}
                  defaultValue={p.name}
                  // biome-ignore lint/a11y/noAutofocus: the field takes the place of the name that was asked to change
                  autoFocus
                  onBlur={(e) => {
                    setRenaming('');
                    const name = e.target.value.trim().slice(0, 120);
                    if (name && name !== p.name) work(`Renaming ${p.name}`, () => renameProject(p, name));
                  }}
                  onKeyDown={(e) => {
                    if (e.key === 'Enter') e.currentTarget.blur();
                    if (e.key === 'Escape') setRenaming('');
                  }}
                />
              ) : (
                <a href={`/work/?project=${p.id}`}>{p.name}</a>
              )}
              <span>
                {p.objects !== undefined ? `${p.objects} objects, ${formatBytes(p.bytes ?? 0)} · ` : ''}
                opened{' '}
                <time dateTime={p.opened} title={ago(p.opened)}>
                  {spoken(p.opened)}
                </time>
              </span>
            </div>
            <Button small disabled={busy !== ''} onClick={() => setRenaming(p.id)}>
              Rename
            </Button>
            <Button small disabled={busy !== ''} onClick={() => work(`Copying ${p.name}`, () => duplicateProject(p))}>
              Duplicate
            </Button>
            <Button
              small
              disabled={busy !== ''}
              onClick={() =>
                work(`Packing ${p.name}`, async () => {
                  const blob = await runJob((remote, task) =>
                    remote.parcel(
                      task,
                      p.id,
                      Comlink.proxy((part: number) => setBusy(`Packing ${p.name}: ${(100 * part).toFixed(0)} %`)),
                    ),
                  );
                  download(`${p.name}.parcel`, blob);
                })
              }
            >
              Save as parcel
            </Button>
            <IconButton
              label={`Delete ${p.name}`}
              disabled={busy !== ''}
              onClick={() => {
                if (!confirm(`Delete “${p.name}” and everything in it from this browser? This cannot be undone.`))
                  return;
                work(`Deleting ${p.name}`, () => deleteProject(p.id));
              }}
            >
              <Trash2 size={15} />
            </IconButton>
          </li>
        ))}
      </ul>
    </section>
  );
}
