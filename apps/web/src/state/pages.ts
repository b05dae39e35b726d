import type { EarthObject, Horizon, Volume } from '@lithagon/core';
import { create } from 'zustand';

/** What may be a page: a horizon of a run of slices, or a volume of one of realizations. */
export type Page = Horizon | Volume;

/** Which of the pages of a series is turned up, by the run that made the series. */
export const usePages = create<{ turned: Record<string, string> }>(() => ({ turned: {} }));

/** Outputs of which a run makes a series, by what they are. */
const SERIES = { horizon: 'slice/', volume: 'realization/' } as const;

const isPage = (o: EarthObject | undefined): o is Page =>
  (o?.kind === 'horizon' || o?.kind === 'volume') && !!o.madeBy.run && !!o.madeBy.output?.startsWith(SERIES[o.kind]);

/** What one run made one after the other, in order; nothing where an object is in no such series. */
export function seriesOf(object: Horizon | undefined, objects: EarthObject[]): Horizon[];
export function seriesOf(object: Volume | undefined, objects: EarthObject[]): Volume[];
export function seriesOf(object: EarthObject | undefined, objects: EarthObject[]): Page[];
export function seriesOf(object: EarthObject | undefined, objects: EarthObject[]): Page[] {
  if (!isPage(object)) return [];
  const number = (o: Page) => Number(o.madeBy.output?.split('/')[1]);
  const all = objects.filter(
    (o): o is Page => isPage(o) && o.kind === object.kind && o.madeBy.run === object.madeBy.run,
  );
  return all.length > 1 ? all.sort((a, b) => number(a) - number(b)) : [];
}

const seriesKey = ({ madeBy }: Page): string => madeBy.run ?? '';

/** The page of a series that is turned up: at first the one in the middle. */
export function pageOf<P extends Page>(series: P[]): P {
  const turned = usePages.getState().turned[seriesKey(series[0])];
  return series.find((h) => h.id === turned) ?? series[series.length >> 1];
}

export const turnTo = (page: Page): void =>
  usePages.setState(({ turned }) => ({ turned: { ...turned, [seriesKey(page)]: page.id } }));

/** Turn so many pages on; there are none beyond the first and the last. */
export function turnPages<P extends Page>(series: P[], by: number): P {
  const at = series.indexOf(pageOf(series));
  const next = series[Math.max(0, Math.min(series.length - 1, at + by))];
  turnTo(next);
  return next;
}

/** Why a page is not drawn: another one of its series is turned up. */
export function behindPage(page: Page, objects: EarthObject[]): string | null {
  const series = seriesOf(page, objects);
  return series.length === 0 || pageOf(series).id === page.id ? null : 'is another page of its series';
}

/** Volumes to choose among: of a series the page that is turned up stands for all. */
export const withoutPages = (volumes: Volume[], objects: EarthObject[]): Volume[] =>
  volumes.filter((v) => behindPage(v, objects) === null);
