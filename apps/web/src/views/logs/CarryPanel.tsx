import type { Proposal } from '@lithagon/core';
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
  onClose(): void;
}) {
  const { state, onAccept, onRefuse } = props;
  const units = useUnits();
  const wells = [...new Set(state.proposals.map((p) => p.well))];
  const depth = (m: number, places = 1) => figure(units.to(m, 'm'), places);
  return (
    <section className={css.carry} aria-label="Carried tops">
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
