// @vitest-environment happy-dom
import { columnOfTops, stratigraphyOf, type Top, topsOf, type Well } from '@lithagon/core';
import { madeTops, project } from '@lithagon/core/testing/wellTables';
import { useState } from 'react';
import { beforeEach, describe, expect, test } from 'vitest';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { useSelection } from '../../state/selection';
import { useTool } from '../../state/tool';
import { changeSettings, settingsOf, useSettings } from '../../state/views';
import { done, objectsNow, openWith } from '../../testing/field';
import { onPage, screen, waitFor, within } from '../../testing/page';
import { LogsTools } from './LogsTools';
import { TopStrip } from './TopStrip';
import type { Hands, Mode } from './useHands';

const logs = () => settingsOf('logs', 'logs');
let scaled: number[] = [];

/** The strip above two wells of the project, with hands that hold what is said to them. */
function Strip() {
  const objects = useProject((s) => s.objects);
  useSettings('logs');
  const [mode, setMode] = useState<Mode>('look');
  const [topName, setTopName] = useState('');
  const [facies, setFacies] = useState('');
  const wells = objects.filter((o): o is Well => o.kind === 'well');
  return (
    <LogsTools
      ids={logs().wells}
      wells={wells}
      objects={objects}
      topNames={['Upper', 'Sand', 'Lower']}
      faciesNames={['Shale']}
      hands={{ mode, setMode, topName, setTopName, facies, setFacies } as Hands}
      scale={1234}
      onScale={(n) => scaled.push(n)}
      onTracks={() => undefined}
      onCarry={() => undefined}
    />
  );
}
const choose = (name: string) => screen.getByRole('combobox', { name });
const button = (name: string | RegExp) => screen.getByRole('button', { name });

beforeEach(async () => {
  scaled = [];
  await openWith(project());
  useDesk.setState({ views: {}, active: null, recent: [] });
  changeSettings('logs', 'logs', { wells: ['A'], window: [100, 200] });
});

describe('the strip above the wells', () => {
  test('changes depth and what wells hang on, and fits them anew then', async () => {
    const { hands } = onPage(<Strip />);
    await hands.selectOptions(choose('Depth'), 'MD');
    expect(logs()).toMatchObject({ depth: 'MD', window: null });
    await hands.selectOptions(choose('Hang on'), 'hung on Sand');
    expect(logs().hang).toBe('Sand');
    await hands.selectOptions(choose('Hang on'), 'true elevation');
    expect(logs().hang).toBeNull();
  });
  test('shows the scale as it stands, and takes a round one', async () => {
    const { hands } = onPage(<Strip />);
    expect(within(choose('Scale')).getByRole('option', { selected: true }).textContent).toBe('1 : 1234');
    await hands.selectOptions(choose('Scale'), '1 : 500');
    expect(scaled).toEqual([500]);
  });
  test('offers seismic between the wells in time, where a scale in metres means nothing', async () => {
    const { hands } = onPage(<Strip />);
    expect(screen.queryByRole('combobox', { name: 'Seismic between wells' })).toBeNull();
    await hands.selectOptions(choose('Depth'), 'TWT');
    expect(choose('Seismic between wells')).toBeDefined();
    expect(screen.queryByRole('combobox', { name: 'Scale' })).toBeNull();
  });
  test('begins picking with a top that there is, and painting with a facies that there is', async () => {
    const { hands } = onPage(<Strip />);
    await hands.click(button('Pick tops'));
    expect(screen.getByRole('combobox', { name: 'Top to pick' })).toHaveProperty('value', 'Upper');
    await hands.click(button('Paint facies'));
    expect(screen.queryByRole('combobox', { name: 'Top to pick' })).toBeNull();
    expect(screen.getByRole('combobox', { name: 'Facies to paint' })).toHaveProperty('value', 'Shale');
    await hands.click(button('Paint facies'));
    expect(button('Paint facies').getAttribute('aria-pressed')).toBe('false');
  });
  test('adds a well that is not there yet, or goes to choose them on the map', async () => {
    const { hands } = onPage(<Strip />);
    const offered = within(choose('Add a well'))
      .getAllByRole('option')
      .map((o) => o.textContent);
    expect(offered).toEqual(['add a well', 'B']);
    await hands.selectOptions(choose('Add a well'), 'B');
    expect(logs().wells).toEqual(['A', 'B']);
    await hands.click(button('On the map'));
    expect(logs().wells).toEqual([]);
    expect(useTool.getState().tool).toEqual({ kind: 'wells' });
  });
  test('makes a column of the rocks, opens it again, and says what it lacks', async () => {
    const { hands } = onPage(<Strip />);
    await hands.click(button('Order the rocks'));
    await waitFor(() => expect(stratigraphyOf(objectsNow())?.units).toHaveLength(3));
    expect(done()).toEqual(['Make the stratigraphic column']);
    const column = stratigraphyOf(objectsNow());
    await waitFor(() => expect(useSelection.getState().object).toBe(column?.id));
    await openWith([...project(), columnOfTops(project()), madeTops('B', [['Marker', 650]])]);
    await hands.click(button('Order the rocks (1 new)'));
    expect(useSelection.getState().object).toBe(stratigraphyOf(objectsNow())?.id);
  });
});

describe('the strip of a chosen top', () => {
  let ended = 0;
  function Chosen({ name }: { name: string }) {
    const objects = useProject((s) => s.objects);
    const top = topsOf(objects, 'A').find((t) => t.name === name);
    return top ? <TopStrip well="A" top={top} onDone={() => ended++} /> : null;
  }
  const now = (name: string) => topsOf(objectsNow(), 'A').find((t) => t.name === name) as Top;
  beforeEach(() => {
    ended = 0;
  });
  test('says how sure it is, which is an edit', async () => {
    const { hands } = onPage(<Chosen name="Sand" />);
    expect(screen.getByText('600.0 m MD')).toBeDefined();
    await hands.selectOptions(choose('Sure'), '75 %');
    await waitFor(() => expect(now('Sand').confidence).toBe(0.75));
    await hands.selectOptions(choose('Sure'), 'not said');
    await waitFor(() => expect(now('Sand').confidence).toBeNull());
  });
  test('makes a cut of a fault of it, and says what that misses or repeats', async () => {
    const { hands } = onPage(<Chosen name="Sand" />);
    expect(screen.queryByRole('textbox', { name: 'Missing section' })).toBeNull();
    await hands.click(screen.getByRole('checkbox', { name: 'fault cut' }));
    const missing = await screen.findByRole('textbox', { name: 'Missing section' });
    await hands.type(missing, '−12.5');
    await hands.tab();
    await waitFor(() => expect(now('Sand')).toMatchObject({ kind: 'fault cut', missingM: -12.5 }));
    await hands.clear(screen.getByRole('textbox', { name: 'Missing section' }));
    await hands.tab();
    await waitFor(() => expect(now('Sand').missingM).toBeNull());
  });
  test('renames it with Enter; a name that the well has already is refused and nothing changes', async () => {
    const { hands } = onPage(<Chosen name="Sand" />);
    const name = screen.getByRole('textbox', { name: 'Name of the top' });
    await hands.clear(name);
    await hands.type(name, 'Lower{Enter}');
    await waitFor(() => expect(now('Sand')).toBeDefined());
    expect(done()).toEqual([]);
    await hands.clear(name);
    await hands.type(name, 'Main sand{Enter}');
    await waitFor(() => expect(now('Main sand')?.md).toBe(600));
  });
  test('deletes it and is done', async () => {
    const { hands } = onPage(<Chosen name="Lower" />);
    await hands.click(button('Delete'));
    await waitFor(() => expect(now('Lower')).toBeUndefined());
    expect(ended).toBe(1);
  });
});
