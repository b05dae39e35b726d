import {
  type AnyStep,
  asLithagonError,
  checkParams,
  type EarthObject,
  type InputSpec,
  type Volume,
} from '@lithagon/core';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { runSetup, takesPlaceOf } from '../../actions/steps';
import { readPlane, trialTook } from '../../compute/planes';
import { ParamFields } from '../../params/ParamFields';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { type Setup, useSelection } from '../../state/selection';
import { activeOf, usePlace, useSettings } from '../../state/views';
import { Button, IconButton } from '../../ui/Button';
import { Field } from '../../ui/Field';
import { indexAt } from '../../views/common/survey';
import css from '../sheet/Sheet.module.css';
import { InputField } from './InputField';
import { Response } from './Response';
import { useMapTrial } from './useMapTrial';

/** What a run would give, or why it cannot, where the step can say so beforehand. */
function useForeseen(setup: Setup, step: AnyStep, objects: EarthObject[]) {
  const [foreseen, setForeseen] = useState<{ says?: string; problem?: string } | null>(null);
  const asked = JSON.stringify([setup.inputs, setup.params]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: inputs and parameters are compared by what they say
  useEffect(() => {
    if (!step.foresee) return setForeseen(null);
    let wanted = true;
    const given = Object.fromEntries(
      Object.entries(setup.inputs).map(([role, ids]) => [role, objects.filter((o) => ids.includes(o.id))]),
    );
    step.foresee({ inputs: given, objects, params: setup.params }).then(
      (says) => wanted && setForeseen({ says }),
      (cause: unknown) => wanted && setForeseen({ problem: asLithagonError(cause).sentence }),
    );
    return () => {
      wanted = false;
    };
  }, [step, asked, objects]);
  return foreseen;
}

/** Lines that are worked on together in a run. */
const TOGETHER = 36;

/** What a line costs in a run, as a part of what it costs by itself: lines around it are then worked through for many at once. */
function ofOneLine(step: AnyStep, setup: Setup, volume: Volume, plane: 'inline' | 'crossline'): number {
  try {
    const around = step.local?.halo(checkParams(step, setup.params), volume)[plane] ?? 0;
    if (!Number.isFinite(around)) return 1;
    return (TOGETHER + 2 * around) / TOGETHER / (1 + 2 * around);
  } catch {
    return 1;
  }
}

/** A step being set up: the form, trial and estimate come from its declaration. */
export function StepForm({ setup, step }: { setup: Setup; step: AnyStep }) {
  const objects = useProject((s) => s.objects);
  const projectId = useProject((s) => s.id);
  const section = activeOf('section');
  const [{ along }] = useSettings('section', section);
  const plane = along === 'crossline' ? 'crossline' : 'inline';
  const place = usePlace(section);
  const [took, setTook] = useState<number | null>(null);
  const change = (part: Partial<Setup>) => useSelection.setState({ setup: { ...setup, ...part } });
  const { local } = step;
  const role = local?.volumes[0] ?? '';
  const volume = local ? (objects.find((o) => o.id === setup.inputs[role]?.[0]) as Volume | undefined) : undefined;
  // what comes out in another domain cannot be shown on this line
  const mayTry = local !== undefined && !local.domain;
  const index = volume ? indexAt(volume, plane, place) : 0;
  const paramsKey = JSON.stringify(setup.params);

  // time one line, so that the whole can be foretold
  // biome-ignore lint/correctness/useExhaustiveDependencies: measured anew for each set of parameters
  useEffect(() => {
    setTook(null);
    // what needs the whole volume for a line, or long to prepare, foretells nothing
    if (!volume || !mayTry || step.reach === 'slice' || local?.longPrepared) return;
    let wanted = true;
    const timer = setTimeout(() => {
      const trial = { step: step.id, params: setup.params, inputs: setup.inputs };
      // the line next to it, so that what was read already is not read again and only the work is timed
      const near = index > 0 ? index - 1 : index + 1;
      readPlane(projectId, volume, plane, index, trial)
        .then(() => readPlane(projectId, volume, plane, near, trial))
        .then(
          () => wanted && setTook(trialTook(trial) ?? null),
          () => undefined,
        );
    }, 250);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [paramsKey, volume?.id]);

  const wells = Object.values(setup.inputs)
    .flat()
    .flatMap((id) => objects.find((o) => o.id === id && o.kind === 'well')?.name ?? []);
  const foreseen = useForeseen(setup, step, objects);
  const replaced = takesPlaceOf(setup, objects);
  // what is live stays so when it is changed
  const wasLive = replaced.some((o) => o.kind === 'volume' && !o.layouts);
  let problem: string | null = null;
  try {
    checkParams(step, setup.params);
  } catch (cause) {
    problem = (cause as Error).message;
  }
  const mapProblem = useMapTrial(setup);
  problem ??= foreseen?.problem ?? mapProblem;
  const lineCount = volume ? volume.binGrid[plane].count : 0;
  const estimate = took !== null && volume ? (took * lineCount * ofOneLine(step, setup, volume, plane)) / 1000 : null;
  return (
    <aside className={css.sheet} aria-label={step.title} hidden={setup.held}>
      <header className={css.top}>
        <div>
          <h2>{step.title}</h2>
          <p>{step.summary}</p>
        </div>
        <IconButton label="Close" onClick={() => useSelection.setState({ setup: null })}>
          <X size={16} />
        </IconButton>
      </header>
      <div className={css.scroll}>
        {(Object.entries(step.inputs) as [string, InputSpec][]).map(([each, spec]) => (
          <InputField
            key={each}
            spec={spec}
            objects={objects}
            chosen={setup.inputs[each] ?? []}
            onChange={(ids) => {
              change({ inputs: { ...setup.inputs, [each]: ids } });
              if (each === role) useDesk.setState({ volume: ids[0] });
            }}
          />
        ))}
        <ParamFields
          step={step}
          params={setup.params}
          wells={wells}
          inputs={setup.inputs}
          onChange={(params) => change({ params })}
        />
        {replaced.length === 0 && (
          <Field label="Name" help="What the result is called; made from what it rests on where this is empty.">
            {(id) => (
              <input
                id={id}
                className={css.typed}
                value={setup.name ?? ''}
                maxLength={200}
                onChange={(e) => change({ name: e.target.value })}
              />
            )}
          </Field>
        )}
        {step.response && volume && <Response step={step} params={setup.params} volume={volume} />}
        {replaced.length > 0 && (
          <p className={css.note}>
            Takes the place of {replaced.map((o) => o.name).join(' and ')}; what rests on it will be out of date until
            it is rebuilt.
          </p>
        )}
        <p className={css.result}>
          After {step.source}.{' '}
          <a href={`/guide/${step.id}/`} target="_blank" rel="noreferrer">
            Field guide
          </a>
        </p>
      </div>
      <footer className={css.go}>
        {problem ? <p className={css.warning}>{problem}</p> : foreseen?.says && <p>{foreseen.says}</p>}
        {mayTry && (
          <Button
            aria-pressed={setup.live}
            onClick={() => {
              if (volume && !setup.live) useDesk.setState({ volume: volume.id });
              change({ live: !setup.live });
            }}
          >
            {setup.live ? 'Back to the seismic' : 'Try on this line'}
          </Button>
        )}
        {step.maps && (
          <Button aria-pressed={setup.live} onClick={() => change({ live: !setup.live })}>
            {setup.live ? 'Back to what the map shows' : 'Try on the map'}
          </Button>
        )}
        {local && replaced.length === 0 && (
          <Button
            disabled={problem !== null}
            title="Takes no space: its samples are worked out where they are looked at. It can be stored later."
            onClick={() => void runSetup(setup, step, { live: true })}
          >
            Keep live
          </Button>
        )}
        <Button main disabled={problem !== null} onClick={() => void runSetup(setup, step, { live: wasLive })}>
          {step.id === 'tie.well'
            ? 'Accept the tie'
            : local
              ? wasLive
                ? 'Keep live'
                : 'Run on the volume'
              : replaced.length > 0
                ? 'Run again'
                : 'Run'}
          {estimate !== null ? ` · about ${estimate < 1.5 ? '1' : estimate.toFixed(0)} s` : ''}
        </Button>
      </footer>
    </aside>
  );
}
