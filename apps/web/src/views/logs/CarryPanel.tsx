import { type Proposal, stepOf } from '@lithagon/core';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { ParamFields } from '../../params/ParamFields';
import { useUnits } from '../../state/units';
import { Button } from '../../ui/Button';
import { figure } from '../../ui/format';
import css from './Logs.module.css';
import type { CarryState } from './useCarry';

/** Proposals well by well: what matches how well, what comes next, how they close, and what to do with each. */
export function CarryPanel(props: {
  state: CarryState;
  onAccept(some: Proposal[]): void;
  onRefuse(some: Proposal[]): void;
  /** Ask again with other settings. */
  onAgain(params: Record<string, unknown>): void;
  onClose(): void;
}) {
  const { state, onAccept, onRefuse } = props;
  const units = useUnits();
  const wells = [...new Set(state.proposals.map((p) => p.well))];
  const depth = (m: number, places = 1) => figure(units.to(m, 'm'), places);
  return (
    <section className={css.carry} aria-label="Correlated tops">
      <table>
        <thead>
          <tr>
            <th>Well</th>
            <th>Top</th>
            <th>Proposed (MD, {units.of('m')})</th>
            <th>Match</th>
            <th>Runner-up</th>
            <th>Better by</th>
            <th>Others differ by</th>
            <th>Misclosure</th>
            <th>Sure</th>
            <th>
              <CarrySettings params={state.asked.params} onAgain={props.onAgain} />{' '}
              <Button small onClick={props.onClose}>
                Close
              </Button>
            </th>
          </tr>
        </thead>
        <tbody>
          {wells.map((well) => {
            const own = state.proposals.filter((p) => p.well === well);
            return own.map((p, n) => (
              <tr key={`${p.well} ${p.name}`}>
                <td>
                  {n === 0 && (
                    <>
                      <b>{well}</b>{' '}
                      <Button small onClick={() => onAccept(own)}>
                        Accept all of {well}
                      </Button>
                    </>
                  )}
                </td>
                <td>{p.name}</td>
                <td className="num">
                  {p.absent ? `missing at about ${depth(p.md, 0)}` : depth(p.md)}
                  {!p.absent && p.missing > 0.5 && <span className={css.weak}> or missing</span>}
                </td>
                <td className="num">{figure(p.match, 2)}</td>
                <td className="num">{p.runnerUp ? depth(p.runnerUp.md) : 'none'}</td>
                <td className="num">{p.margin > 99 ? '> 99' : p.margin.toFixed(0)}</td>
                <td className={`num ${(p.disagreementM ?? 0) > 5 ? css.weak : ''}`}>
                  {p.disagreementM === null ? '–' : `${depth(p.disagreementM)} ${units.of('m')}`}
                </td>
                <td className={`num ${(p.misclosureM ?? 0) > 5 ? css.weak : ''}`}>
                  {p.misclosureM === null ? '–' : `${depth(p.misclosureM)} ${units.of('m')}`}
                </td>
                <td className={`num ${p.confidence < 0.5 ? css.weak : ''}`}>{Math.round(100 * p.confidence)} %</td>
                <td>
                  <Button small onClick={() => onAccept([p])}>
                    {p.absent ? 'Noted' : 'Accept'}
                  </Button>{' '}
                  <Button small onClick={() => onRefuse([p])}>
                    Refuse
                  </Button>
                </td>
              </tr>
            ));
          })}
          {state.notes.map((note) => (
            <tr key={note}>
              <td colSpan={10}>{note}</td>
            </tr>
          ))}
          {state.proposals.length === 0 && (
            <tr>
              <td colSpan={10}>No proposal is left.</td>
            </tr>
          )}
        </tbody>
      </table>
    </section>
  );
}

/** How tops are carried: which curves, how much stretch, how readily section is missing. */
function CarrySettings(props: { params: Record<string, unknown>; onAgain(params: Record<string, unknown>): void }) {
  const [params, setParams] = useState(props.params);
  const [open, setOpen] = useState(false);
  const step = stepOf('wells.carry');
  if (!step) return null;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <Button small>Settings…</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className={css.settings}
          align="end"
          side="top"
          sideOffset={4}
          aria-label="How tops are correlated"
        >
          <div>
            <ParamFields step={step} params={params} onChange={setParams} />
          </div>
          <Button
            main
            onClick={() => {
              setOpen(false);
              props.onAgain(params);
            }}
          >
            Propose again
          </Button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
