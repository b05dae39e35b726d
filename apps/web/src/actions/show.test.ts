import '../testing/browser';
import { type EarthObject, type Horizon, toIndex } from '@lithagon/core';
import { beforeEach, describe, expect, test } from 'vitest';
import { useDesk } from '../state/desk';
import { LOGS_DESK } from '../state/logsTemplate';
import { useSelection } from '../state/selection';
import { fieldOnTheDesk } from '../testing/field';
import { showObject } from './show';

const field = fieldOnTheDesk();
const of = (kind: EarthObject['kind']) => field.objects.find((o) => o.kind === kind) as EarthObject;
beforeEach(() => useDesk.setState({ mapShows: null, line: 'a line', logs: LOGS_DESK, domain: {} }));

describe('an object opens where it is seen', () => {
  test('a volume in section and scene, in its own domain', () => {
    showObject({ ...field.seismic, domain: 'depth' });
    expect(useDesk.getState()).toMatchObject({
      volume: field.seismic.id,
      line: null,
      domain: { section: 'depth', scene: 'depth' },
    });
    expect(useSelection.getState().object).toBe(field.seismic.id);
  });
  test('a horizon on the map', () => {
    const horizon = of('horizon') as Horizon;
    showObject({ ...horizon, domain: 'depth' });
    expect(useDesk.getState()).toMatchObject({ mapShows: horizon.id, domain: { map: 'depth' } });
  });
  test('a well where the section passes it', () => {
    const well = of('well');
    if (well.kind !== 'well') throw new Error('not a well');
    showObject(well);
    const [i, j] = toIndex(field.seismic.binGrid, well.x, well.y).map(Math.round);
    expect(useDesk.getState().lines).toMatchObject({ inline: i, crossline: j });
    // one far outside is passed as near as the survey comes
    showObject({ ...well, x: 1e6, y: -1e6 });
    const { inline, crossline } = field.seismic.binGrid;
    expect(useDesk.getState().lines.inline).toBeLessThan(inline.count);
    expect(useDesk.getState().lines.crossline).toBeLessThan(crossline.count);
    expect(useDesk.getState().lines.inline).toBeGreaterThanOrEqual(0);
  });
  test('what belongs to a well beside the wells that are there, once', () => {
    showObject(of('logs'));
    showObject(of('tops'));
    expect(useDesk.getState().logs.wells).toEqual([of('well').id]);
  });
});
