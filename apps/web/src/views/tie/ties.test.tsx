// @vitest-environment happy-dom
import {
  activeRelation,
  type EarthObject,
  LithagonError,
  runStep,
  type Tie,
  type TieParams,
  type TimeDepthRelation,
} from '@lithagon/core';
import { act, renderHook } from '@testing-library/react';
import { scaleLinear } from 'd3-scale';
import { beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { useSelection } from '../../state/selection';
import { done, objectsNow, openWith, show } from '../../testing/field';
import { onPage, screen, waitFor, within } from '../../testing/page';
import { type Tied, tiedField } from '../../testing/tied';

/** A worker that answers ties when it is told to. */
const asked: { params: TieParams; answer(tie: Tie): void; refuse(message: string): void }[] = [];
vi.mock('../../compute/pool', () => ({
  unwrap: (value: unknown) => value,
  forViews: () => ({
    tie: (_: string, __: string, ___: string, ____: string, _____: string | null, params: TieParams) =>
      new Promise((answer, fail) => {
        asked.push({ params, answer, refuse: (message) => fail(new LithagonError('tie', message, {})) });
      }),
  }),
}));
const { Drift } = await import('./Drift');
const { ShiftMap, TieTable } = await import('./TieTable');
const { changeTie, useTie, useTieRequest } = await import('./useTie');

let field: Tied;
let objects: EarthObject[];
let tie: Tie;
let relation: TimeDepthRelation;
beforeAll(async () => {
  field = await tiedField();
  tie = await field.tie();
  const { store, params } = field;
  [relation] = (await runStep({ step: 'tie.well', inputs: inputs(), params }, store)) as TimeDepthRelation[];
  objects = await store.list();
});

const inputs = () => ({ well: [field.well.id], seismic: [field.seismic.id], wavelet: [field.wavelet.id] });
const setup = (more: Partial<TieParams> = {}) => ({
  step: 'tie.well',
  inputs: inputs(),
  params: { ...field.params, ...more },
  live: false,
});
const paramsNow = () => useSelection.getState().setup?.params as TieParams;
beforeEach(() => {
  asked.length = 0;
  show(objects);
  useSelection.setState({ setup: null, object: null });
});

describe('what the Tie view follows', () => {
  test('is the tie being set up, before any that was accepted', () => {
    useSelection.setState({ setup: setup(), object: relation.id });
    const { result } = renderHook(useTieRequest);
    expect(result.current).toMatchObject({
      well: field.well.id,
      wavelet: field.wavelet.id,
      draft: true,
      relation: null,
    });
  });
  test('is the relation that was selected last, else the active one of a well', () => {
    const older = { ...relation, id: 'older', activated: undefined, madeBy: { ...relation.madeBy, started: '2020' } };
    show([...objects, older]);
    const { result } = renderHook(useTieRequest);
    expect(result.current).toMatchObject({ relation: relation.id, draft: false });
    act(() => useSelection.setState({ object: 'older' }));
    expect(result.current?.relation).toBe('older');
    // something else is selected: the view stays where it was
    act(() => useSelection.setState({ object: field.seismic.id }));
    expect(result.current?.relation).toBe('older');
  });
  test('is nothing while an input is missing', () => {
    useSelection.setState({ setup: { ...setup(), inputs: { ...inputs(), seismic: [] } } });
    expect(renderHook(useTieRequest).result.current).toBeNull();
  });
});

describe('the tie as its parameters stand', () => {
  const follow = () => {
    useSelection.setState({ setup: setup() });
    return renderHook(() => useTie(useTieRequest())).result;
  };
  test('is asked for one at a time: of changes made meanwhile only the last is', async () => {
    const result = follow();
    await waitFor(() => expect(asked).toHaveLength(1));
    for (const shiftMs of [1, 2, 3]) act(() => changeTie({ shiftMs }));
    expect(asked).toHaveLength(1);
    await act(async () => asked[0].answer(tie));
    expect(result.current.tie).toBe(tie);
    await waitFor(() => expect(asked).toHaveLength(2));
    expect(asked[1].params.shiftMs).toBe(3);
  });
  test('that cannot be made says why, and is there again once it can', async () => {
    const result = follow();
    await waitFor(() => expect(asked).toHaveLength(1));
    await act(async () => asked[0].refuse('T-1 has no sonic.'));
    expect(result.current).toMatchObject({ tie: null, problem: { message: 'T-1 has no sonic.' } });
    act(() => changeTie({ shiftMs: 4 }));
    await waitFor(() => expect(asked).toHaveLength(2));
    await act(async () => asked[1].answer(tie));
    expect(result.current).toMatchObject({ tie, problem: null });
  });
});

describe('knees of the drift', () => {
  const box = { left: 0, top: 0, width: 80, height: 400 };
  const y = scaleLinear([400, 1000], [0, 400]);
  const drift = (draft: boolean) =>
    onPage(
      <svg aria-hidden="true">
        <Drift tie={tie} y={y} box={box} draft={draft} moved={[]} others={[]} />
      </svg>,
    );
  const knees = (page: ReturnType<typeof drift>) => [...page.container.querySelectorAll('rect[class*=knee]')];
  const pull = (knee: Element, to: number) => {
    Object.assign(knee, { setPointerCapture: () => undefined });
    const send = (type: string, clientX: number) =>
      act(() => void knee.dispatchEvent(new MouseEvent(type, { bubbles: true, clientX })));
    send('pointerdown', 40);
    send('pointermove', to);
    send('pointerup', to);
  };
  test('stand at the depths of the calibration, and each says its drift', () => {
    const found = knees(drift(true));
    expect(found).toHaveLength(tie.chain.calibration.knees.length);
    expect(found[1].textContent).toMatch(/^−?\d+\.\d ms at \d+ m TVDSS; drag to move/);
  });
  test('are moved by hand in a draft, later drift following the pointer', () => {
    useSelection.setState({ setup: setup() });
    const page = drift(true);
    pull(knees(page)[1], 60);
    const [moved] = paramsNow().knees;
    expect(moved.tvdss).toBe(tie.chain.calibration.knees[1].tvdss);
    pull(knees(page)[1], 50);
    // the same knee again: it is held once, and further to the left is earlier
    expect(paramsNow().knees).toHaveLength(1);
    expect(paramsNow().knees[0].driftMs).toBeLessThan(moved.driftMs);
  });
  test('of an accepted tie stay where they are', () => {
    useSelection.setState({ setup: setup() });
    pull(knees(drift(false))[1], 60);
    expect(paramsNow().knees).toEqual(field.params.knees);
  });
});

describe('the table of all ties', () => {
  const second = () => ({
    ...relation,
    id: 'second',
    name: 'T-1 tie 2',
    shiftMs: -6.4,
    madeBy: { ...relation.madeBy, started: new Date().toISOString() },
  });
  const row = (name: string) => screen.getByRole('button', { name }).closest('tr') as HTMLElement;
  test('says of each how well it matches and how far it is out, and which is active', async () => {
    await openWith([...objects, second()]);
    onPage(<TieTable />);
    const cells = within(row(relation.name))
      .getAllByRole('cell')
      .map((c) => c.textContent);
    expect(cells.slice(0, 3)).toEqual(['T-1', relation.name, relation.correlation.toFixed(2)]);
    expect(cells[5]).toBe(relation.evidence?.uncertaintyMs.toFixed(1));
    expect(row('T-1 tie 2').getAttribute('aria-current')).toBe('true');
    expect(within(row('T-1 tie 2')).getByText('−6.4')).toBeDefined();
  });
  test('makes an older version the active one, by an edit', async () => {
    await openWith([...objects, second()]);
    const { hands } = onPage(<TieTable />);
    await hands.click(within(row(relation.name)).getByRole('button', { name: 'make active' }));
    await waitFor(() => expect(activeRelation(objectsNow(), 'T-1')?.id).toBe(relation.id));
    expect(done()).toEqual([`Make ${relation.name} active`]);
    await hands.click(screen.getByRole('button', { name: 'T-1 tie 2' }));
    expect(useSelection.getState().object).toBe('second');
  });
  test('offers a common phase where ties to one volume turned its wavelet differently, and not where they did not', async () => {
    const other = { ...field.well, id: 'T-2', name: 'T-2', x: field.well.x + 400 };
    const its = (phaseDeg: number): TimeDepthRelation => ({
      ...relation,
      id: 'its',
      name: 'T-2 tie',
      well: 'T-2',
      phaseDeg,
      madeBy: { ...relation.madeBy, inputs: { ...relation.madeBy.inputs, well: ['T-2@1'] } },
    });
    await openWith([...objects, other, its(relation.phaseDeg + 4)]);
    const alike = onPage(<TieTable />);
    expect(screen.queryByRole('button', { name: 'Find a common phase' })).toBeNull();
    alike.unmount();
    await openWith([...objects, other, its(relation.phaseDeg + 35)]);
    const { hands } = onPage(<TieTable />);
    expect(screen.getByText(/One volume has one wavelet, and these ties turned it by/)).toBeDefined();
    await hands.click(screen.getByRole('button', { name: 'Find a common phase' }));
    const { step, inputs: given } = useSelection.getState().setup ?? {};
    expect(step).toBe('tie.phase');
    expect(given).toMatchObject({
      wells: [field.well.id, 'T-2'],
      seismic: [field.seismic.id],
      wavelet: [field.wavelet.id],
    });
  });
  test('has a map of shifts as soon as two wells are tied', () => {
    const one = onPage(<ShiftMap />);
    expect(one.container.textContent).toBe('');
    one.unmount();
    const other = { ...field.well, id: 'T-2', name: 'T-2', x: field.well.x + 400 };
    show([...objects, other, { ...relation, id: 'its', well: 'T-2', shiftMs: 3.25 }]);
    onPage(<ShiftMap />);
    const map = screen.getByRole('img', { name: 'Shift of each tie where its well stands' });
    expect(map.textContent).toContain('T-2');
    expect(map.textContent).toMatch(/\+3\.[23]/);
  });
});
