import { dependents, type EarthObject } from '@lithagon/core';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { select } from '../../state/selection';
import { Button } from '../../ui/Button';
import { Modal } from '../../ui/Modal';
import css from './Catalogue.module.css';

const several = (objects: EarthObject[]) => (objects.length === 1 ? objects[0].name : `${objects.length} objects`);

/** What can be done to the objects that are marked: tag, colour, delete. */
export function BulkActions({ objects, onDone }: { objects: EarthObject[]; onDone(): void }) {
  const all = useProject((s) => s.objects);
  const [tag, setTag] = useState('');
  const [asking, setAsking] = useState(false);
  if (objects.length === 0) return null;
  const known = [...new Set(all.flatMap((o) => o.tags ?? []))].sort();
  const has = tag.trim() !== '' && objects.every((o) => o.tags?.includes(tag.trim()));
  const setTags = () => {
    const wanted = tag.trim().slice(0, 60);
    if (!wanted) return;
    const next = objects.map((o) => {
      const rest = (o.tags ?? []).filter((t) => t !== wanted);
      return { ...o, tags: has ? rest : [...rest, wanted] };
    });
    void edit(`${has ? 'Take the tag' : 'Tag'} “${wanted}” ${has ? 'off' : 'on'} ${several(objects)}`, objects, next);
    setTag('');
  };
  return (
    <>
      <span className={css.bulk}>
        <span>{objects.length} marked</span>
        <input
          aria-label="Tag"
          list="known-tags"
          placeholder="tag"
          value={tag}
          onChange={(e) => setTag(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && setTags()}
        />
        <datalist id="known-tags">
          {known.map((t) => (
            <option key={t} value={t} />
          ))}
        </datalist>
        <Button small disabled={tag.trim() === ''} onClick={setTags}>
          {has ? 'Untag' : 'Tag'}
        </Button>
        <label title="Colour of all that are marked">
          Colour
          <input
            type="color"
            aria-label="Colour of all that are marked"
            defaultValue="#b4641e"
            onBlur={(e) =>
              void edit(
                `Recolour ${several(objects)}`,
                objects,
                objects.map((o) => ({ ...o, color: e.target.value })),
              )
            }
          />
        </label>
        <Button small onClick={() => setAsking(true)}>
          <Trash2 size={13} aria-hidden="true" /> Delete…
        </Button>
      </span>
      <DeleteSheet
        open={asking}
        objects={objects}
        onClose={() => setAsking(false)}
        onDeleted={() => {
          setAsking(false);
          onDone();
        }}
      />
    </>
  );
}

/** Says what rests on objects before they go; deleting is an edit that can be undone. */
export function DeleteSheet(props: { open: boolean; objects: EarthObject[]; onClose(): void; onDeleted(): void }) {
  const { open, objects, onClose, onDeleted } = props;
  const all = useProject((s) => s.objects);
  const [along, setAlong] = useState(false);
  const resting = open
    ? dependents(
        all,
        objects.map((o) => o.id),
      )
    : [];
  const wells = objects.filter((o) => o.kind === 'well').map((o) => o.name);
  const orphans = all.filter((o) => 'well' in o && wells.includes(o.well) && !objects.includes(o));
  const remove = async () => {
    const gone = along ? [...objects, ...resting] : objects;
    select(null);
    await edit(`Delete ${several(gone)}`, gone, []);
    onDeleted();
  };
  return (
    <Modal
      open={open}
      title={`Delete ${several(objects)}?`}
      summary="Undo brings it back, also after a reload."
      onClose={onClose}
    >
      <div className={css.ask}>
        {objects.length > 1 && <p>{objects.map((o) => o.name).join(', ')}</p>}
        {resting.length > 0 ? (
          <>
            <p>
              {resting.length === 1 ? 'One object was' : `${resting.length} objects were`} made from{' '}
              {objects.length === 1 ? 'it' : 'them'}; without it {resting.length === 1 ? 'it stays' : 'they stay'} as{' '}
              {resting.length === 1 ? 'it is' : 'they are'}, marked as out of date:
            </p>
            <ul aria-label="What rests on it">
              {resting.map((o) => (
                <li key={o.id}>
                  {o.name} <small>{o.kind}</small>
                </li>
              ))}
            </ul>
            <label>
              <input type="checkbox" checked={along} onChange={(e) => setAlong(e.target.checked)} /> Delete these too
            </label>
          </>
        ) : (
          <p>Nothing was made from {objects.length === 1 ? 'it' : 'them'}.</p>
        )}
        {orphans.length > 0 && (
          <p>
            {orphans.length} {orphans.length === 1 ? 'object names' : 'objects name'} {wells.join(', ')} and will wait
            for a head.
          </p>
        )}
      </div>
      <footer className={css.askFoot}>
        <Button onClick={onClose}>Keep</Button>
        <Button main onClick={() => void remove()}>
          Delete {several(along ? [...objects, ...resting] : objects)}
        </Button>
      </footer>
    </Modal>
  );
}
