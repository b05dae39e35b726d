import { type Declarations, matchNames } from '@lithagon/core';
import * as Comlink from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { runJob } from '../../compute/pool';
import { mayChange, refreshProject, useProject } from '../../state/project';
import { track } from '../../state/runs';
import { useSelection } from '../../state/selection';
import { checkRoom } from '../../storage/room';
import { Button } from '../../ui/Button';
import { counted } from '../../ui/format';
import { Modal } from '../../ui/Modal';
import { FrameButton } from '../frame/FrameButton';
import {
  alsoAnswered,
  type Entry,
  entriesOf,
  knownNames,
  looksLikeParts,
  possibleParts,
  recall,
  remember,
  unanswered,
} from './entries';
import css from './LoadSheet.module.css';
import { Parts } from './Parts';
import { Report } from './Report';
import { Sketches } from './Sketches';

/** Declarations that change what a reader makes of a file. */
const LOOKED =
  /^(byte\.|column\.|unit\.|project\.crs$|kind$|crs$|as$|grid$|scalar$|bins$|lineTraces$|variable$|interval$)/;

const intoSight = (row: HTMLElement | null) => row?.scrollIntoView({ block: 'nearest' });

/** Dropped files before anything is loaded: what each was taken for, and what only a person can say. */
export function LoadSheet() {
  const open = useSelection((s) => s.loadOpen);
  const files = useSelection((s) => s.files);
  const objects = useProject((s) => s.objects);
  const [entries, setEntries] = useState<Entry[]>([]);
  const [chosen, setChosen] = useState(0);
  const turns = useRef(new Map<File, number>());

  useEffect(() => {
    const known = new Set(entries.flatMap((e) => [e.file, ...e.beside]));
    const fresh = files.filter((f) => !known.has(f));
    if (files.length === 0 && entries.length > 0) setEntries([]);
    if (fresh.length === 0) return;
    const made = entriesOf(fresh);
    setEntries((all) => [...all, ...made]);
    for (const entry of made) void look(entry);
  });

  const change = (file: File, part: Partial<Entry>) =>
    setEntries((all) => all.map((e) => (e.file === file ? { ...e, ...part } : e)));
  const look = async (entry: Entry) => {
    const projectId = useProject.getState().id;
    const turn = (turns.current.get(entry.file) ?? 0) + 1;
    turns.current.set(entry.file, turn);
    const ask = (declare: Declarations) =>
      runJob((remote, task) => remote.inspect(task, projectId, entry.file, entry.beside, declare));
    let report = await ask(entry.declare);
    // what was said of a table of the same shape holds for this one
    const said = Object.keys(entry.declare).length === 0 ? recall(report) : null;
    if (said) report = await ask(said);
    // a later look, at other bytes or columns, is the one that counts
    if (turns.current.get(entry.file) !== turn) return;
    setEntries((all) =>
      all.map((e) => {
        if (e.file !== entry.file) return e;
        // what was answered meanwhile stays answered, and what was left out stays so
        const wanted = !report.refused && (e.wanted || e.report === null || e.report.refused !== undefined);
        return { ...e, report, wanted, beside: entry.beside, declare: { ...said, ...e.declare } };
      }),
    );
  };
  const declare = (entry: Entry, said: Declarations) => {
    const next = { ...entry, declare: { ...entry.declare, ...said } };
    change(entry.file, { declare: next.declare });
    if (Object.keys(said).some((key) => LOOKED.test(key))) void look(next);
  };
  const join = (entry: Entry, part: Entry, joined: boolean) => {
    const beside = joined ? [...entry.beside, part.file] : entry.beside.filter((f) => f !== part.file);
    void look({ ...entry, beside });
  };

  const close = () => {
    useSelection.setState({ loadOpen: false, files: [] });
    setEntries([]);
    setChosen(0);
  };
  const partOf = (entry: Entry) => entries.find((e) => e !== entry && e.beside.includes(entry.file));
  const ready = entries.filter((e) => e.wanted && e.report && !e.report.refused && !partOf(e));
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
      if (job.report) remember(job.report, job.declare);
      const result = await track(`Loading ${job.file.name}`, 'data', async (signal, progress) => {
        mayChange();
        // seismic is kept three times, in 32 or 16 bits
        const seismic = job.report?.format === 'SEG-Y';
        const bytes = [job.file, ...job.beside].reduce((n, f) => n + f.size, 0);
        await checkRoom(
          `Loading ${job.file.name}`,
          seismic ? (job.declare.storage === 'compact' ? 1.5 : 3) * bytes : bytes,
        );
        return runJob(
          (remote, task) =>
            remote.load(
              task,
              projectId,
              job.file,
              job.beside,
              job.declare,
              Comlink.proxy((part: number) => progress(part)),
            ),
          signal,
        );
      });
      if (!result) continue;
      done += result.ids.length;
      await refreshProject();
    }
    if (done > 0) toast.success(`${counted(done, 'object')} loaded from ${counted(jobs.length, 'file')}.`);
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
                ref={n === chosen ? intoSight : undefined}
                className={n === chosen ? css.chosen : ''}
                onClick={() => setChosen(n)}
              >
                <b>{e.file.name}</b>
                <small className={e.report?.refused ? css.refused : ''}>
                  {partOf(e)
                    ? `part of ${partOf(e)?.file.name}`
                    : e.report
                      ? e.report.refused
                        ? e.report.table
                          ? 'columns to be told'
                          : 'cannot be loaded'
                        : e.report.takenFor
                      : 'looking …'}
                </small>
                {e.report && !partOf(e) && !e.report.refused && unanswered(e.report, e.declare).length > 0 && (
                  <em>asks</em>
                )}
              </button>
            </li>
          ))}
        </ul>
        <div className={css.detail}>
          {entry?.report ? (
            <Report
              report={entry.report}
              file={entry.file}
              declare={entry.declare}
              names={matchNames(entry.report.wells ?? [], knownNames(entry, entries, objects))}
              onDeclare={(said) => declare(entry, said)}
              onAll={(key, value) => {
                for (const other of alsoAnswered(entry, entries, key, value))
                  change(other.file, { declare: { ...other.declare, [key]: value } });
              }}
              parts={
                <Parts
                  entry={entry}
                  candidates={possibleParts(entry, entries).filter((e) => !partOf(e) || partOf(e) === entry)}
                  alike={(e) => Boolean(entry.report && e.report && looksLikeParts(entry.report, e.report))}
                  onJoin={(part, joined) => join(entry, part, joined)}
                />
              }
            />
          ) : (
            <p className={css.note}>{entry ? `Looking into ${entry.file.name} …` : 'Choose a file at the left.'}</p>
          )}
        </div>
        <div className={css.map}>
          <Sketches
            reports={entries.filter((e) => e.report && !e.report.refused).flatMap((e) => (e.report ? [e.report] : []))}
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
              ? `${waiting[0].file.name} still asks: ${waiting[0].report ? unanswered(waiting[0].report, waiting[0].declare).join(', ') : ''}.`
              : ''}
        </span>
        {waiting.length > 0 && !looking && (
          <Button onClick={() => setChosen(entries.indexOf(waiting[0]))}>Answer it</Button>
        )}
        <Button onClick={close}>Cancel</Button>
        <Button main disabled={looking || ready.length === 0 || waiting.length > 0} onClick={() => void load()}>
          Load {counted(ready.length, 'file')}
        </Button>
      </footer>
    </Modal>
  );
}
