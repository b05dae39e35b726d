import { allSteps } from '@lithagon/core';
import { Command } from 'cmdk';
import { useProject } from '../state/project';
import { useSelection } from '../state/selection';
import { ACTIONS, titleNow } from './actions';
import css from './Palette.module.css';
import { showObject } from './show';
import { lacks, prepare } from './steps';

/** Every action, step and object, found by typing. */
export function Palette() {
  const open = useSelection((s) => s.paletteOpen);
  const objects = useProject((s) => s.objects);
  const close = () => useSelection.setState({ paletteOpen: false });
  const go = (run: () => void) => {
    close();
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
      <Command.Input className={css.input} placeholder="Find an object or action" />
      <Command.List className={css.list}>
        <Command.Empty className={css.none}>Nothing is called that.</Command.Empty>
        <Command.Group heading="Objects" className={css.group}>
          {objects.map((o) => (
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
            <Command.Item key={a.id} value={`${a.title} ${a.id}`} onSelect={() => go(a.run)} className={css.item}>
              {titleNow(a)}
              {a.keys && <kbd>{a.keys}</kbd>}
            </Command.Item>
          ))}
        </Command.Group>
      </Command.List>
    </Command.Dialog>
  );
}
