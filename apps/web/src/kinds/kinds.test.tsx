// @vitest-environment happy-dom
import { allKinds, type EarthObject, forgetKind, registerKind } from '@lithagon/core';
import { MADE } from '@lithagon/core/testing/objects';
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { z } from 'zod';
import { showObject } from '../actions/show';
import { useProject } from '../state/project';
import { useSelection } from '../state/selection';
import { layersOf, rowsOf } from '../views/common/contents';
import { toScreen } from '../views/map/frame';
import { Objects } from '../views/map/layers/Objects';
import { Sheet } from '../workbench/sheet/Sheet';
import { type MapLayerProps, webKind } from './define';
import { colorOf, forgetWebKind, registerWebKind, webKindOf } from './index';

const buoy = {
  id: 'buoy-1',
  name: 'North buoy',
  kind: 'buoy',
  revision: 'b',
  stage: 'data',
  madeBy: MADE,
  x: 500,
  y: 700,
} as unknown as EarthObject;
type Buoy = EarthObject & { x: number; y: number };

const shown: string[] = [];
function OnMap({ object, place }: MapLayerProps<Buoy>) {
  const [cx, cy] = place(object.x, object.y);
  return <circle data-testid="buoy" cx={cx} cy={cy} r={3} />;
}

beforeEach(() => {
  registerKind(
    'buoy',
    {
      title: 'Buoy',
      plural: 'Buoys',
      facts: () => [{ label: 'Anchored', value: 'yes' }],
      aside: () => '',
      moved: null,
      places: () => [[500, 700]],
      formats: { txt: { title: 'Text', write: async () => '' } },
    },
    z.looseObject({}),
  );
  registerWebKind(
    'buoy',
    webKind<Buoy>({
      color: () => '#112233',
      colored: true,
      sheet: [({ object }) => <p>Rises and falls at {object.x}.</p>],
      actions: [() => <button type="button">Weigh anchor</button>],
      show: ({ id }) => shown.push(id),
      layers: { map: { order: 30, Draw: OnMap } },
    }),
  );
  useProject.setState({ objects: [buoy], byId: new Map([[buoy.id, buoy]]), old: new Map(), waiting: new Map() });
});
afterEach(() => {
  cleanup();
  forgetKind('buoy');
  forgetWebKind('buoy');
});

test('a kind made up on the spot has its colour, sheet, actions, view and layer with no other file touched', () => {
  expect(colorOf(buoy, [buoy])).toBe('#112233');
  useSelection.setState({ object: buoy.id, setup: null });
  render(<Sheet />);
  expect(screen.getByText('Anchored')).toBeDefined();
  expect(screen.getByText('Rises and falls at 500.')).toBeDefined();
  expect(screen.getByRole('button', { name: 'Weigh anchor' })).toBeDefined();
  expect(screen.getByLabelText('Colour')).toBeDefined();
  showObject(buoy);
  expect(shown).toEqual(['buoy-1']);
  cleanup();
  render(
    <svg>
      <title>map</title>
      <Objects
        rows={rowsOf({ shown: [], out: [], follows: true }, [buoy], layersOf('map'), 'twt', [])}
        objects={[buoy]}
        wells={[]}
        size={{ width: 200, height: 100 }}
        domain="twt"
        surface={null}
        place={(x, y) => toScreen({ x: 500, y: 700, perPixel: 1 }, { width: 200, height: 100 }, x, y)}
      />
    </svg>,
  );
  const circle = screen.getByTestId('buoy');
  expect([circle.getAttribute('cx'), circle.getAttribute('cy')]).toEqual(['100', '50']);
});

test('every kind that the core knows is known to the screen', () => {
  for (const kind of allKinds()) expect(webKindOf({ kind } as EarthObject).sheet).toBeDefined();
  expect(() => webKindOf({ kind: 'nothing' } as never)).toThrow('there is no kind “nothing”');
});
