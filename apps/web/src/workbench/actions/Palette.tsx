import { allSteps, finder } from '@lithagon/core';
import { Command } from 'cmdk';
import { useDeferredValue, useMemo, useState } from 'react';
import { showObject } from '../../actions/show';
import { lacks, prepare } from '../../actions/steps';
import { useProject } from '../../state/project';
import { useSelection } from '../../state/selection';
import { ACTIONS, titleNow } from './actions';
import css from './Palette.module.css';

/** Objects listed at most: more are found by typing on. */
const MOST = 50;

/** Every action, step and object, found by typing. */
export function Palette() {
  const open = useSelection((s) => s.paletteOpen);
  const objects = useProject((s) => s.objects);
  const [text, setText] = useState('');
  const wanted = useDeferredValue(text);
  const find = useMemo(() => finder(objects), [objects]);
  const found = useMemo(() => (open ? find(wanted).slice(0, MOST) : []), [open, find, wanted]);
  const close = () => useSelection.setState({ paletteOpen: false });
  const go = (run: () => void) => {
    close();
    setText('');
    run();
  };
  return (
    <Command.Dialog
      open={open}
      onOpenChange={(o) => useSelection.setState({ paletteOpen: o })}
      label="Find an object or action"
      overlayClassName={css.overlay}
      contentClassName={css.palette}
    >
      <Command.Input
        className={css.input}
        value={text}
        onValueChange={setText}
        placeholder="Find an object or action"
      />
      <Command.List className={css.list}>
        <Command.Empty className={css.none}>Nothing is called that.</Command.Empty>
        <Command.Group heading="Objects" className={css.group}>
          {found.map((o) => (
            <Command.Item
              key={o.id}
              value={`${o.name} ${o.kind} ${o.id}`}
              onSelect={() => go(() => showObject(o))}
              className={css.item}
            >
              {o.name}
              <small>{o.kind}</small>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Steps" className={css.group}>
          {allSteps()
            .filter((s) => lacks(s, objects) === null)
            .map((s) => (
              <Command.Item
                key={s.id}
                value={`${s.title} ${s.id}`}
                onSelect={() => go(() => prepare(s))}
                className={css.item}
              >
                {s.title}
                <small>{s.stage}</small>
              </Command.Item>
            ))}
        </Command.Group>
        <Command.Group heading="Actions" className={css.group}>
          {ACTIONS.filter((a) => a.id !== 'palette').map((a) => (
            <Command.Item
              key={a.id}
              value={`${titleNow(a)} ${a.title} ${a.id}`}
              onSelect={() => go(a.run)}
              className={css.item}
            >
              {titleNow(a)}
              {a.keys && <kbd>{a.keys}</kbd>}
            </Command.Item>
          ))}
        </Command.Group>
      </Command.List>
    </Command.Dialog>
  );
}
