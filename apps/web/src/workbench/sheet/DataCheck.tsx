import { asLithagonError, type EarthObject, stepOf } from '@lithagon/core';
import { useState } from 'react';
import { runRebuild } from '../../actions/steps';
import { runJob } from '../../compute/pool';
import { useProject } from '../../state/project';
import { Button } from '../../ui/Button';
import css from './Sheet.module.css';

/** Looks whether the data of an object are whole, and offers to make it again where they are not. */
export function DataCheck({ object }: { object: EarthObject }) {
  const projectId = useProject((s) => s.id);
  const [found, setFound] = useState<string[] | null>(null);
  const [busy, setBusy] = useState(false);
  const check = async () => {
    setBusy(true);
    try {
      setFound(await runJob((remote, task) => remote.check(task, projectId, object.id)));
    } catch (cause) {
      setFound([asLithagonError(cause).sentence]);
    }
    setBusy(false);
  };
  return (
    <div className={css.check}>
      <Button small disabled={busy} onClick={() => void check()}>
        {busy ? 'Checking its data …' : 'Check its data'}
      </Button>
      {found?.length === 0 && <p role="status">All of its data are there.</p>}
      {found?.slice(0, 5).map((sentence) => (
        <p key={sentence} className={css.warning} role="alert">
          {sentence}
        </p>
      ))}
      {found && found.length > 5 && <p className={css.note}>and {found.length - 5} parts more.</p>}
      {found && found.length > 0 && stepOf(object.madeBy.step) && (
        <Button
          small
          main
          onClick={() => {
            setFound(null);
            void runRebuild(object);
          }}
        >
          Rebuild
        </Button>
      )}
    </div>
  );
}
