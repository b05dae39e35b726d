import '../testing/browser';
import { type EarthObject, type Horizon, toIndex } from '@lithagon/core';
import { beforeEach, describe, expect, test } from 'vitest';
import { useDesk } from '../state/desk';
import { useSelection } from '../state/selection';
import { changeSettings, settingsOf } from '../state/views';
import { lookIn } from '../state/views/index';
import { fieldOnTheDesk } from '../testing/field';
import { showObject } from './show';

const field = fieldOnTheDesk();
const of = (kind: EarthObject['kind']) => field.objects.find((o) => o.kind === kind) as EarthObject;
beforeEach(() => {
  useDesk.setState({ views: {}, links: {}, active: null, recent: [] });
  changeSettings('section', 'section', { line: 'a line' });
});
const place = () => lookIn(useDesk.getState(), 'section').place;

describe('an object opens where it is seen', () => {
  test('a volume in section and scene, in its own domain', () => {
    showObject({ ...field.seismic, domain: 'depth' });
    expect(useDesk.getState().volume).toBe(field.seismic.id);
    expect(settingsOf('section', 'section')).toMatchObject({ line: null, domain: 'depth', volume: null });
    expect(settingsOf('scene', 'scene')).toMatchObject({ domain: 'depth', volume: null });
    expect(useSelection.getState().object).toBe(field.seismic.id);
  });
  test('a volume in the section in front alone, where that has a volume of its own', () => {
    changeSettings('section', 'section-2', { volume: 'another' });
    useDesk.setState({ active: 'section-2', volume: 'the desk’s' });
    showObject(field.seismic);
    expect(settingsOf('section', 'section-2')).toMatchObject({ volume: field.seismic.id });
    expect(useDesk.getState().volume).toBe('the desk’s');
  });
  test('a horizon on the map', () => {
    const horizon = of('horizon') as Horizon;
    showObject({ ...horizon, domain: 'depth' });
    expect(settingsOf('map', 'map')).toMatchObject({ shows: horizon.id, domain: 'depth' });
  });
  test('a well where the section passes it', () => {
    const well = of('well');
    if (well.kind !== 'well') throw new Error('not a well');
    showObject(well);
    const [i, j] = toIndex(field.seismic.binGrid, well.x, well.y).map(Math.round);
    const { inline, crossline } = field.seismic.binGrid;
    expect(place()).toMatchObject({
      inline: inline.first + i * inline.step,
      crossline: crossline.first + j * crossline.step,
    });
    // one far outside is passed as near as the survey comes
    showObject({ ...well, x: 1e6, y: -1e6 });
    const far = place();
    expect(far.inline).toBe(inline.first);
    expect(far.crossline).toBe(crossline.first + (crossline.count - 1) * crossline.step);
  });
  test('what belongs to a well beside the wells that are there, once', () => {
    showObject(of('logs'));
    showObject(of('tops'));
    expect(settingsOf('logs', 'logs').wells).toEqual([of('well').id]);
  });
});
