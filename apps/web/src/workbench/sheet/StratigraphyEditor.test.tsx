// @vitest-environment happy-dom
import { columnOfTops, type Stratigraphy, stratigraphyOf, topsOf } from '@lithagon/core';
import { madeTops, madeWell, project } from '@lithagon/core/testing/wellTables';
import { beforeEach, describe, expect, test } from 'vitest';
import { undo } from '../../state/history';
import { refreshProject, useProject } from '../../state/project';
import { done, objectsNow, openWith } from '../../testing/field';
import { onPage, screen, waitFor } from '../../testing/page';
import { StratigraphyEditor } from './StratigraphyEditor';

const order = () => stratigraphyOf(objectsNow())?.units.map((u) => u.top);

/** The editor of the project's own column, as it stands now. */
function Editor() {
  const column = useProject((s) => stratigraphyOf(s.objects));
  return column ? <StratigraphyEditor column={column} /> : null;
}

beforeEach(async () => {
  const field = project();
  await openWith([...field, columnOfTops(field)]);
});

describe('the order of the rocks', () => {
  test('is changed unit by unit, and each change can be taken back by its name', async () => {
    const { hands } = onPage(<Editor />);
    expect(order()).toEqual(['Upper', 'Sand', 'Lower']);
    expect(screen.getByRole('button', { name: 'Move Upper up' })).toHaveProperty('disabled', true);
    await hands.click(screen.getByRole('button', { name: 'Move Sand up' }));
    await waitFor(() => expect(order()).toEqual(['Sand', 'Upper', 'Lower']));
    await hands.click(screen.getByRole('button', { name: 'Take Lower out' }));
    await waitFor(() => expect(order()).toEqual(['Sand', 'Upper']));
    expect(done()).toEqual(['Move Sand in the column', 'Take Lower out of the column']);
    await undo();
    await waitFor(() => expect(order()).toEqual(['Sand', 'Upper', 'Lower']));
  });
  test('has names, patterns and unconformities', async () => {
    const { hands } = onPage(<Editor />);
    const zone = screen.getByRole('textbox', { name: 'Zone below Sand' });
    await hands.clear(zone);
    await hands.type(zone, 'Main sand');
    await hands.tab();
    await hands.selectOptions(await screen.findByRole('combobox', { name: 'Pattern of Main sand' }), 'sand');
    const unconformity = screen.getByRole('button', { name: 'Unconformity at Lower' });
    expect(unconformity.getAttribute('aria-pressed')).toBe('false');
    await hands.click(unconformity);
    const units = () => stratigraphyOf(objectsNow())?.units as Stratigraphy['units'];
    await waitFor(() => expect(units()[2].unconformity).toBe(true));
    expect(units()[1]).toMatchObject({ top: 'Sand', zone: 'Main sand', pattern: 'sand' });
    // a zone is never left without a name
    await hands.clear(screen.getByRole('textbox', { name: 'Zone below Sand' }));
    await hands.tab();
    expect(units()[1].zone).toBe('Main sand');
  });
  test('takes in a top that was picked later, and finds another spelling of one that it has', async () => {
    await useProject.getState().store?.commit({
      put: [
        madeTops('B', [
          ['Marker', 640],
          ['SAND', 615],
        ]),
        madeWell('B'),
      ],
    });
    await refreshProject();
    const { hands } = onPage(<Editor />);
    await hands.click(screen.getByRole('button', { name: 'It is Sand' }));
    await waitFor(() => expect(topsOf(objectsNow(), 'B').map((t) => t.name)).toEqual(['Sand', 'Marker']));
    expect(order()).toEqual(['Upper', 'Sand', 'Lower']);
    await hands.click(screen.getByRole('button', { name: 'Take in' }));
    await waitFor(() => expect(order()).toEqual(['Upper', 'Sand', 'Marker', 'Lower']));
    expect(screen.queryByText('Tops that are not in it')).toBeNull();
  });
});
