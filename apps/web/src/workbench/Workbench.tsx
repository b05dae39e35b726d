import { useEffect, useState } from 'react';
import { Toaster } from 'sonner';
import { keepCutting } from '../compute/cutting';
import { forViews } from '../compute/pool';
import { useKeptConversion } from '../state/conversion';
import { keepDesk, useDesk } from '../state/desk';
import { heldByHistory, keepHistory } from '../state/history';
import { openProject, takeOver, useProject } from '../state/project';
import { track } from '../state/runs';
import { offerFiles } from '../state/selection';
import { goTo } from '../state/views';
import { fetchRawFiles, RAW_KEY } from '../storage/rawFiles';
import { Boundary } from '../ui/Boundary';
import { Button } from '../ui/Button';
import { firstPlace, shownVolume } from '../views/common/survey';
import { Aside } from './Aside';
import { onKey } from './actions/actions';
import { Help } from './actions/Help';
import { Palette } from './actions/Palette';
import { Column } from './Column';
import { Desk } from './desk/Desk';
import { keepPortrait } from './desk/portrait';
import { LoadSheet } from './load/LoadSheet';
import { Readout } from './Readout';
import { Sheet } from './sheet/Sheet';
import { TopBar } from './TopBar';
import { Tray } from './tray/Tray';
import css from './Workbench.module.css';
import { Walk } from './walk/Walk';

/** The shell: Column, Tray, Desk, Sheet, Readout. */
export function Workbench() {
  const [ready, setReady] = useState(false);
  const problem = useProject((s) => s.problem);
  const writer = useProject((s) => s.writer);
  const aside = useProject((s) => s.aside);
  const theme = useDesk((s) => s.theme);
  const [dropping, setDropping] = useState(false);
  useEffect(() => {
    const id = new URLSearchParams(location.search).get('project') ?? '';
    keepDesk(id);
    keepHistory(id);
    void openProject(id).then(async () => {
      const { store, writer } = useProject.getState();
      // what a run that was interrupted had written is cleared away, by who may change the project, before anything runs
      if (store && writer) await forViews().sweep(id, heldByHistory());
      setReady(true);
      const raw = sessionStorage.getItem(RAW_KEY);
      sessionStorage.removeItem(RAW_KEY);
      if (raw)
        void track('Fetching Quillon’s raw files', 'data', (signal, progress) =>
          fetchRawFiles(raw, progress, signal),
        ).then((files) => files && offerFiles(files));
    });
    addEventListener('keydown', onKey);
    const forget = [keepPortrait(), keepCutting()];
    return () => {
      removeEventListener('keydown', onKey);
      for (const each of forget) each();
    };
  }, []);
  const objects = useProject((s) => s.objects);
  useKeptConversion();
  useEffect(() => {
    const { links, volume: chosen } = useDesk.getState();
    const volume = shownVolume(objects, chosen);
    // until one goes somewhere, views look where there is most to see
    if (volume && !links.A) goTo('section', firstPlace(objects, volume));
  }, [objects]);
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
  }, [theme]);
  if (problem)
    return (
      <div className={css.lost}>
        <p>{problem}</p>
        <a href="/">To the start page</a>
      </div>
    );
  return (
    <div
      className={css.app}
      onDragOver={(e) => {
        if (!e.dataTransfer.types.includes('Files')) return;
        e.preventDefault();
        setDropping(true);
      }}
      onDragLeave={(e) => e.currentTarget === e.target && setDropping(false)}
      onDrop={(e) => {
        setDropping(false);
        const files = [...e.dataTransfer.files];
        if (files.length === 0) return;
        e.preventDefault();
        offerFiles(files);
      }}
    >
      <TopBar />
      {!writer && (
        <p className={css.reader} role="alert">
          This project is open in another tab. You may look at everything here; changes are made there.{' '}
          <Button small onClick={() => void takeOver()}>
            Work here instead
          </Button>
        </p>
      )}
      {aside.length > 0 && <Aside aside={aside} />}
      <Column />
      <Boundary what="The tray">
        <Tray />
      </Boundary>
      {ready ? <Desk /> : <main className={css.waiting}>Opening the project …</main>}
      <Boundary what="The sheet">
        <Sheet />
      </Boundary>
      <Readout />
      <LoadSheet />
      <Palette />
      <Help />
      <Walk />
      {dropping && <div className={css.drop}>Drop files to look into them</div>}
      <Toaster position="bottom-center" theme={theme} toastOptions={{ className: css.toast }} closeButton />
    </div>
  );
}
