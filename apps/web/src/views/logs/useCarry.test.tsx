// @vitest-environment happy-dom
import { type EarthObject, LithagonError, type Proposal, topsOf } from '@lithagon/core';
import { madeWell, project } from '@lithagon/core/testing/wellTables';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { undo } from '../../state/history';
import { useRuns } from '../../state/runs';
import { done, objectsNow, openWith } from '../../testing/field';
import { onPage, screen, waitFor } from '../../testing/page';

/** What the worker answers next. */
let answer: { proposals: Proposal[]; notes: string[] } | Error;
vi.mock('../../compute/pool', () => ({
  runJob: async () => {
    if (answer instanceof Error) throw answer;
    return answer;
  },
}));
const { CarryPanel } = await import('./CarryPanel');
const { useCarry } = await import('./useCarry');

const ASKED = { trusted: ['A'], wells: ['A', 'B', 'C'], params: {} };
const proposal = (well: string, name: string, md: number, more: Partial<Proposal> = {}): Proposal => ({
  well,
  name,
  from: 'A',
  md,
  tvdss: md - 20,
  absent: false,
  missing: 0.1,
  match: 0.9,
  margin: 30,
  confidence: 0.8,
  runnerUp: null,
  disagreementM: null,
  misclosureM: null,
  ...more,
});
const tops = (well: string) => topsOf(objectsNow(), well).map((t) => [t.name, t.md]);

/** The panel over what is carried. */
function Carried({ carry }: { carry: ReturnType<typeof useCarry> }) {
  if (!carry.state) return <p>nothing is carried</p>;
  return (
    <CarryPanel
      state={carry.state}
      onAccept={(some) => void carry.accept(some)}
      onRefuse={carry.refuse}
      onAgain={(params) => void carry.propose({ ...ASKED, params })}
      onClose={carry.close}
    />
  );
}
function Page() {
  const carry = useCarry();
  return (
    <>
      <button type="button" onClick={() => void carry.propose(ASKED)}>
        Correlate tops
      </button>
      <Carried carry={carry} />
    </>
  );
}

beforeEach(async () => {
  await openWith([...project(), madeWell('C')] as EarthObject[]);
  answer = {
    proposals: [
      proposal('B', 'Upper', 540),
      proposal('B', 'Sand', 650),
      proposal('C', 'Sand', 700, { absent: true, missing: 0.9 }),
    ],
    notes: ['C: no place stands out for Upper.'],
  };
});

describe('proposed tops', () => {
  test('are accepted one by one, or all of a well as one edit that says how they came', async () => {
    const { hands } = onPage(<Page />);
    await hands.click(screen.getByRole('button', { name: 'Correlate tops' }));
    await screen.findByText('C: no place stands out for Upper.');
    expect(tops('B')).toEqual([]);
    await hands.click(screen.getByRole('button', { name: 'Accept all of B' }));
    await waitFor(() =>
      expect(tops('B')).toEqual([
        ['Upper', 540],
        ['Sand', 650],
      ]),
    );
    expect(done()).toEqual(['Accept 2 correlated tops in B']);
    const [upper] = topsOf(objectsNow(), 'B');
    expect(upper).toMatchObject({ confidence: 0.8, how: 'correlated from A, match 0.90' });
    await waitFor(() => expect(screen.queryByText('Upper')).toBeNull());
    await undo();
    await waitFor(() => expect(tops('B')).toEqual([]));
  });
  test('that are refused leave no trace', async () => {
    const { hands } = onPage(<Page />);
    await hands.click(screen.getByRole('button', { name: 'Correlate tops' }));
    await screen.findByRole('region', { name: 'Correlated tops' });
    for (let left = 3; left > 0; left--) {
      const refuse = screen.getAllByRole('button', { name: 'Refuse' });
      expect(refuse).toHaveLength(left);
      await hands.click(refuse[0]);
    }
    expect(screen.getByText('No proposal is left.')).toBeDefined();
    expect([tops('B'), tops('C'), done()]).toEqual([[], [], []]);
  });
  test('of a bed that is missing are noted and gone: nothing is put there', async () => {
    const { hands } = onPage(<Page />);
    await hands.click(screen.getByRole('button', { name: 'Correlate tops' }));
    await hands.click(await screen.findByRole('button', { name: 'Noted' }));
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Noted' })).toBeNull());
    expect([tops('C'), done()]).toEqual([[], []]);
  });
  test('are asked for again with other settings', async () => {
    const { hands } = onPage(<Page />);
    await hands.click(screen.getByRole('button', { name: 'Correlate tops' }));
    await hands.click(await screen.findByRole('button', { name: 'Settings…' }));
    answer = { proposals: [proposal('B', 'Lower', 760)], notes: [] };
    await hands.click(screen.getByRole('button', { name: 'Propose again' }));
    await screen.findByText('Lower');
    expect(screen.queryByText('Sand')).toBeNull();
  });
  test('keep where a hand has nudged them to until they are accepted there', async () => {
    const { result } = renderHook(useCarry);
    await act(() => result.current.propose(ASKED));
    const [upper] = result.current.state?.proposals ?? [];
    act(() => result.current.nudge(upper, 533));
    const [nudged] = result.current.state?.proposals ?? [];
    expect(nudged.md).toBe(533);
    await act(() => result.current.accept([nudged]));
    expect(tops('B')).toEqual([['Upper', 533]]);
    expect(result.current.state?.proposals.map((p) => p.name)).toEqual(['Sand', 'Sand']);
  });
});

test('carrying that fails leaves no panel, and no run behind', async () => {
  answer = new LithagonError('logs', 'A has no curve that others have.', { fix: 'Choose others.' });
  const { hands } = onPage(<Page />);
  await hands.click(screen.getByRole('button', { name: 'Correlate tops' }));
  await waitFor(() => expect(useRuns.getState().runs).toEqual([]));
  expect(screen.getByText('nothing is carried')).toBeDefined();
});
