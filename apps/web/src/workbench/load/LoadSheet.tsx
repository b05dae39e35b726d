import type { Declarations, FileReport } from '@lithagon/core';
import * as Comlink from 'comlink';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { runJob } from '../../compute/pool';
import { refreshProject, useProject } from '../../state/project';
import { track } from '../../state/runs';
import { useSelection } from '../../state/selection';
import { Button } from '../../ui/Button';
import { Modal } from '../../ui/Modal';
import { FrameButton } from '../FrameSheet';
import css from './LoadSheet.module.css';
import { Report } from './Report';
import { Sketches } from './Sketches';

interface Entry {
  file: File;
  report: FileReport | null;
  declare: Declarations;
  wanted: boolean;
}

/** What still has to be answered before a file can be loaded. */
export function unanswered(report: FileReport, declare: Declarations): string[] {
  return report.questions.filter((q) => !declare[q.key]).map((q) => q.label.toLowerCase());
}

/** Dropped files before anything is loaded: what each was taken for, and what only a person can say. */
export function LoadSheet() {
  const open = useSelection((s) => s.loadOpen);
  const files = useSelection((s) => s.files);
  const [entries, setEntries] = useState<Entry[]>([]);
  const [chosen, setChosen] = useState(0);

  useEffect(() => {
    const known = new Set(entries.map((e) => e.file));
    const fresh = files.filter((f) => !known.has(f));
    if (files.length === 0 && entries.length > 0) setEntries([]);
    if (fresh.length === 0) return;
    setEntries((all) => [...all, ...fresh.map((file) => ({ file, report: null, declare: {}, wanted: true }))]);
    for (const file of fresh) void look(file, {});
  });

  const change = (file: File, part: Partial<Entry>) =>
    setEntries((all) => all.map((e) => (e.file === file ? { ...e, ...part } : e)));
  const look = async (file: File, declare: Declarations) => {
    const report = await runJob((remote, task) => remote.inspect(task, file, declare));
    change(file, { report, wanted: !report.refused });
  };
  const declare = (entry: Entry, key: string, value: string) => {
    const next = { ...entry.declare, [key]: value };
    change(entry.file, { declare: next });
    if (key.startsWith('byte.')) void look(entry.file, next);
  };

  const close = () => {
    useSelection.setState({ loadOpen: false, files: [] });
    setEntries([]);
    setChosen(0);
  };
  const ready = entries.filter((e) => e.wanted && e.report && !e.report.refused);
  const waiting = ready.filter((e) => e.report && unanswered(e.report, e.declare).length > 0);
  const looking = entries.some((e) => !e.report);
  const load = async () => {
    const projectId = useProject.getState().id;
    const jobs = [...ready];
    close();
    // wells and tables first: they are quick, and give the map something to show while seismic is read
    jobs.sort((a, b) => Number(a.report?.format === 'SEG-Y') - Number(b.report?.format === 'SEG-Y'));
    let done = 0;
    for (const job of jobs) {
      const result = await track(`Loading ${job.file.name}`, 'data', (signal, progress) =>
        runJob(
          (remote, task) =>
            remote.load(
              task,
              projectId,
              job.file,
              job.declare,
              Comlink.proxy((part: number) => progress(part)),
            ),
          signal,
        ),
      );
      if (!result) continue;
      done += result.ids.length;
      await refreshProject();
    }
    if (done > 0)
      toast.success(
        `${done} ${done === 1 ? 'object' : 'objects'} loaded from ${jobs.length} ${jobs.length === 1 ? 'file' : 'files'}.`,
      );
  };
  const entry = entries[chosen];
  return (
    <Modal
      open={open}
      wide
      title="Load files"
      summary="What each file was taken for. Nothing is loaded yet."
      onClose={close}
    >
      <div className={css.layout}>
        <ul className={css.files} aria-label="Files">
          {entries.map((e, n) => (
            <li key={e.file.name + e.file.size}>
              <input
                type="checkbox"
                aria-label={`Load ${e.file.name}`}
                checked={e.wanted}
                disabled={!e.report || e.report.refused !== undefined}
                onChange={(event) => change(e.file, { wanted: event.target.checked })}
              />
              <button
                type="button"
                aria-pressed={n === chosen}
                className={n === chosen ? css.chosen : ''}
                onClick={() => setChosen(n)}
              >
                <b>{e.file.name}</b>
                <small className={e.report?.refused ? css.refused : ''}>
                  {e.report ? (e.report.refused ? 'cannot be loaded' : e.report.takenFor) : 'looking …'}
                </small>
                {e.report && !e.report.refused && unanswered(e.report, e.declare).length > 0 && <em>asks</em>}
              </button>
            </li>
          ))}
        </ul>
        <div className={css.detail}>
          {entry?.report ? (
            <Report
              report={entry.report}
              declare={entry.declare}
              onDeclare={(key, value) => declare(entry, key, value)}
              onAll={(key, value) => {
                for (const other of entries)
                  if (other.report?.questions.some((q) => q.key === key) && !other.declare[key])
                    change(other.file, { declare: { ...other.declare, [key]: value } });
              }}
            />
          ) : (
            <p className={css.note}>{entry ? `Looking into ${entry.file.name} …` : 'Choose a file at the left.'}</p>
          )}
        </div>
        <div className={css.map}>
          <Sketches
            reports={entries.filter((e) => e.report && !e.report.refused).map((e) => e.report as FileReport)}
            chosen={entry?.report ?? null}
          />
        </div>
      </div>
      <footer className={css.foot}>
        <FrameButton />
        <span>
          {looking
            ? 'Looking into files …'
            : waiting.length > 0
              ? `${waiting[0].file.name} still asks: ${unanswered(waiting[0].report as FileReport, waiting[0].declare).join(', ')}.`
              : ''}
        </span>
        {waiting.length > 0 && !looking && (
          <Button onClick={() => setChosen(entries.indexOf(waiting[0]))}>Answer it</Button>
        )}
        <Button onClick={close}>Cancel</Button>
        <Button main disabled={looking || ready.length === 0 || waiting.length > 0} onClick={() => void load()}>
          Load {ready.length} {ready.length === 1 ? 'file' : 'files'}
        </Button>
      </footer>
    </Modal>
  );
}
