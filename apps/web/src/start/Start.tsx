import { asLithagonError } from '@lithagon/core/kept';
import * as Comlink from 'comlink';
import { useEffect, useState } from 'react';
import { runJob } from '../compute/pool';
import { clearAwayHalfMade, listProjects, newProject, openFromServer, type ProjectEntry } from '../storage/projects';
import { RAW_KEY } from '../storage/rawFiles';
import { Button } from '../ui/Button';
import { chooseFiles } from '../ui/files';
import { Mark } from '../ui/Mark';
import { Beds } from './Beds';
import { ProjectList } from './ProjectList';
import css from './Start.module.css';
import { useDemo, waitingFor } from './useDemo';

const go = (id: string, query = '') => {
  location.href = `/work/?project=${id}${query}`;
};

/** Where a person begins: the demo field, a new project, or one of those kept in this browser. */
export function Start() {
  const [projects, setProjects] = useState<ProjectEntry[]>([]);
  const demo = useDemo();
  const [busy, setBusy] = useState('');
  const [part, setPart] = useState(0);
  const [problem, setProblem] = useState('');
  const [stop, setStop] = useState<(() => void) | null>(null);
  useEffect(() => {
    const theme = localStorage.getItem('lithagon-theme');
    const dark = theme ? theme === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
    document.documentElement.dataset.theme = dark ? 'dark' : 'light';
    void clearAwayHalfMade().finally(() => listProjects().then(setProjects));
  }, []);
  const begin = (what: string, work: () => Promise<void>) => {
    setBusy(what);
    setProblem('');
    work().catch((cause: Error) => {
      setBusy('');
      setPart(0);
      setProblem(`${what}: ${asLithagonError(cause).sentence}`);
    });
  };
  return (
    <div className={css.page}>
      <Beds />
      <main className={css.main}>
        <h1>
          <Mark size={34} /> Lithagon
        </h1>
        <p className={css.lead}>From raw seismic and wells to a volume you can defend.</p>
        <div className={css.ways}>
          <button
            type="button"
            disabled={demo.project !== 'there' || busy !== ''}
            onClick={() => begin('Opening Quillon', async () => go(await openFromServer('/demo/project')))}
          >
            <b>Open Quillon worked up</b>
            <span>
              {waitingFor(demo, 'project') ??
                'A made-up field, from its seismic and wells by ties, horizons and depth to a volume.'}
            </span>
          </button>
          <button
            type="button"
            disabled={demo.files !== 'there' || busy !== ''}
            onClick={() =>
              begin('Starting from raw files', async () => {
                const id = await newProject('Quillon from raw files');
                sessionStorage.setItem(RAW_KEY, '/demo/files');
                go(id);
              })
            }
          >
            <b>Start Quillon from its raw files</b>
            <span>{waitingFor(demo, 'files') ?? 'SEG-Y, LAS and tables as they would come from a colleague.'}</span>
          </button>
          <button
            type="button"
            disabled={busy !== ''}
            onClick={() => begin('Making a project', async () => go(await newProject('New project')))}
          >
            <b>New project</b>
            <span>Empty. Drop files of your own into it; they stay in this browser.</span>
          </button>
          <button
            type="button"
            disabled={busy !== ''}
            onClick={() =>
              void chooseFiles('.parcel').then(([file]) => {
                if (!file) return;
                begin(`Opening ${file.name}`, async () => {
                  const controller = new AbortController();
                  setStop(() => () => controller.abort());
                  const facts = await runJob(
                    (remote, task) =>
                      remote.openParcel(
                        task,
                        file,
                        Comlink.proxy((part: number) => setPart(part)),
                      ),
                    controller.signal,
                  ).finally(() => setStop(null));
                  go(facts.id);
                });
              })
            }
          >
            <b>Open a parcel</b>
            <span>A project that somebody packed into one file.</span>
          </button>
        </div>
        {busy && (
          <p role="status">
            {busy} … {part > 0 ? `${(100 * part).toFixed(0)} %` : ''}{' '}
            {stop && (
              <Button small onClick={stop}>
                Cancel
              </Button>
            )}
          </p>
        )}
        {problem && (
          <p className={css.problem} role="alert">
            {problem}
          </p>
        )}
        {projects.length > 0 && <ProjectList projects={projects} onChange={setProjects} onProblem={setProblem} />}
      </main>
    </div>
  );
}
