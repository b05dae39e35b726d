import { CircleHelp, LibraryBig, Moon, PackageOpen, Redo2, Search, Sun, Undo2 } from 'lucide-react';
import { useDesk } from '../state/desk';
import { openView } from '../state/dock';
import { redo, undo, useHistory } from '../state/history';
import { useProject } from '../state/project';
import { useSelection } from '../state/selection';
import { IconButton } from '../ui/Button';
import { Mark } from '../ui/Mark';
import { DeskTabs } from './desk/DeskTabs';
import { FrameButton } from './frame/FrameButton';
import { saveParcel } from './sheet/save';
import css from './TopBar.module.css';
import { UndoList } from './UndoList';

export function TopBar() {
  const facts = useProject((s) => s.facts);
  const theme = useDesk((s) => s.theme);
  const { done, undone } = useHistory();
  const back = done.at(-1);
  const again = undone.at(-1);
  return (
    <header className={css.bar}>
      <a href="/" className={css.mark} aria-label="Lithagon, to the start page">
        <Mark />
        Lithagon
      </a>
      <span className={css.project}>{facts?.name ?? ''}</span>
      <FrameButton />
      <DeskTabs />
      <span className={css.grow} />
      <button type="button" className={css.find} onClick={() => useSelection.setState({ paletteOpen: true })}>
        <Search size={13} /> Find an object or action <kbd>Ctrl K</kbd>
      </button>
      <IconButton label={back ? `Undo: ${back.name}` : 'Nothing to undo'} disabled={!back} onClick={() => void undo()}>
        <Undo2 size={17} />
      </IconButton>
      <IconButton
        label={again ? `Redo: ${again.name}` : 'Nothing to redo'}
        disabled={!again}
        onClick={() => void redo()}
      >
        <Redo2 size={17} />
      </IconButton>
      <UndoList />
      <IconButton label="Catalogue of all objects" onClick={() => openView('catalogue')}>
        <LibraryBig size={17} />
      </IconButton>
      <IconButton label="Save the project as a parcel" onClick={() => void saveParcel()}>
        <PackageOpen size={17} />
      </IconButton>
      <IconButton label="Keys, methods and a first walk" onClick={() => useSelection.setState({ helpOpen: true })}>
        <CircleHelp size={17} />
      </IconButton>
      <IconButton
        label={theme === 'dark' ? 'Light theme' : 'Dark theme'}
        onClick={() => useDesk.setState({ theme: theme === 'dark' ? 'light' : 'dark' })}
      >
        {theme === 'dark' ? <Sun size={17} /> : <Moon size={17} />}
      </IconButton>
    </header>
  );
}
