import { useSelection } from '../state/selection';
import type { Tool } from '../state/tool';

type Place = [x: number, y: number, vertical: number];

/** A place as parameters of the step that is set up. */
export function setPlace({ keys, sets }: Extract<Tool, { kind: 'place' }>, place: Place): void {
  useSelection.setState(({ setup }) => ({
    setup: setup && {
      ...setup,
      params: {
        ...setup.params,
        ...Object.fromEntries(keys.map((key, n) => [key, Math.round(place[n] * 10) / 10])),
        ...sets,
      },
    },
  }));
}

const strokesIn = (params: Record<string, unknown>) => (Array.isArray(params.strokes) ? params.strokes : []);

/** Balls of one stroke of a brush, after those that there are. */
export function addStrokes({ does, wide, tall }: Extract<Tool, { kind: 'body brush' }>, places: Place[]): void {
  useSelection.setState(({ setup }) => ({
    setup: setup && {
      ...setup,
      params: {
        ...setup.params,
        strokes: [...strokesIn(setup.params), ...places.map(([x, y, at]) => ({ does, x, y, at, wide, tall }))],
      },
    },
  }));
}
