import { stepOf } from '@lithagon/core';
import { ArrowRight } from 'lucide-react';
import { beginFault } from '../../actions/draw';
import { beginPicking } from '../../actions/picking/picks';
import { lacks, prepare } from '../../actions/steps';
import { type Next, whatNext } from '../../stages/next';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { offerFiles, useSelection } from '../../state/selection';
import { takeTool } from '../../state/tool';
import { chooseFiles } from '../../ui/files';
import css from './Tray.module.css';

/** Things worth doing that are shown at once. */
const MOST = 2;

function begin({ stage, by }: Next): void {
  useDesk.setState({ stage });
  if ('step' in by) {
    const step = stepOf(by.step);
    if (step) prepare(step);
    return;
  }
  const hands = {
    load: () => void chooseFiles().then(offerFiles),
    frame: () => useSelection.setState({ frameOpen: true }),
    pick: () => beginPicking(),
    fault: () => beginFault(),
    area: () => takeTool({ kind: 'area', name: 'Drawn area', ring: [] }),
  };
  hands[by.hand]();
}

/** What to do next, by what the project holds: what belongs to the open bed first. */
export function WhatNext({ stage }: { stage: string }) {
  const objects = useProject((s) => s.objects);
  const frame = useProject((s) => s.facts?.frame ?? null);
  const possible = whatNext(objects, frame !== null).filter(({ by }) => {
    const step = 'step' in by ? stepOf(by.step) : undefined;
    return !step || lacks(step, objects) === null;
  });
  const first = [...possible.filter((n) => n.stage === stage), ...possible.filter((n) => n.stage !== stage)];
  if (first.length === 0) return null;
  return (
    <section className={css.next} aria-label="What next">
      <h3>What next</h3>
      {first.slice(0, MOST).map((next) => (
        <button
          key={next.words}
          type="button"
          className={css.nextItem}
          aria-label={`Next: ${next.words}`}
          onClick={() => begin(next)}
        >
          {next.words}
          <ArrowRight size={13} aria-hidden="true" />
        </button>
      ))}
    </section>
  );
}
