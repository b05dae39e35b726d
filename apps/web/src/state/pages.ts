import type { EarthObject, Horizon } from '@lithagon/core';
import { create } from 'zustand';

/** Which of the horizons of a series is turned up, by the run that made the series. */
export const usePages = create<{ turned: Record<string, string> }>(() => ({ turned: {} }));

/** The horizons that one run made one below the other, from the top down; nothing where a horizon is in no such series. */
export function seriesOf(horizon: EarthObject | undefined, objects: EarthObject[]): Horizon[] {
  if (horizon?.kind !== 'horizon' || !horizon.madeBy.run || !horizon.madeBy.output?.startsWith('slice/')) return [];
  const number = (h: Horizon) => Number(h.madeBy.output?.split('/')[1]);
  const all = objects.filter(
    (o): o is Horizon =>
      o.kind === 'horizon' && o.madeBy.run === horizon.madeBy.run && !!o.madeBy.output?.startsWith('slice/'),
  );
  return all.length > 1 ? all.sort((a, b) => number(a) - number(b)) : [];
}

const seriesKey = ({ madeBy }: Horizon): string => madeBy.run ?? '';

/** The page of a series that is turned up: at first the one in the middle. */
export function pageOf(series: Horizon[]): Horizon {
  const turned = usePages.getState().turned[seriesKey(series[0])];
  return series.find((h) => h.id === turned) ?? series[series.length >> 1];
}

export const turnTo = (page: Horizon): void =>
  usePages.setState(({ turned }) => ({ turned: { ...turned, [seriesKey(page)]: page.id } }));

/** Turn so many pages on; there are none beyond the first and the last. */
export function turnPages(series: Horizon[], by: number): Horizon {
  const at = series.indexOf(pageOf(series));
  const next = series[Math.max(0, Math.min(series.length - 1, at + by))];
  turnTo(next);
  return next;
}

/** Why a horizon is not drawn: another page of its series is turned up. */
export function behindPage(horizon: Horizon, objects: EarthObject[]): string | null {
  const series = seriesOf(horizon, objects);
  return series.length === 0 || pageOf(series).id === horizon.id ? null : 'is another page of its series';
}
