import { useMemo } from 'react';
import { type DeskState, useDesk } from '../desk';
import { useHere } from '../here';
import type { Settings, ViewKind } from './settings';
import { BLANK, type Contents, kindOfView, type Link, type Look, type Place, settingsIn, type ViewState } from './view';

export type { Compare, Path, Piece, Settings, ViewKind } from './settings';
export { JOINED, SEVERAL } from './settings';
export type { Contents, Link, Place, Shown, ViewState, Windows } from './view';
export { kindOfView, LINKS, titleOf } from './view';

type Views = Pick<DeskState, 'views' | 'links'>;

export const viewIn = ({ views }: Pick<DeskState, 'views'>, id: string): ViewState => views[id] ?? BLANK;

/** Where a view looks: with its group, or by itself. */
export function lookIn(desk: Views, id: string): Look {
  const view = viewIn(desk, id);
  return view.link ? (desk.links[view.link] ?? BLANK.own) : view.own;
}

function setView(id: string, change: Partial<ViewState>): void {
  useDesk.setState((s) => ({ views: { ...s.views, [id]: { ...viewIn(s, id), ...change } } }));
}

function setLook(id: string, change: (look: Look) => Look): void {
  useDesk.setState((s) => {
    const { link } = viewIn(s, id);
    const look = change(lookIn(s, id));
    if (link) return { links: { ...s.links, [link]: look } };
    return { views: { ...s.views, [id]: { ...viewIn(s, id), own: look } } };
  });
}

/** What a view is set to, and how that is changed; the view that one stands in where none is named. */
export function useSettings<K extends ViewKind>(
  kind: K,
  named?: string,
): [Settings[K], (change: Partial<Settings[K]>) => void] {
  const here = useHere();
  // outside of any view of the kind it is the first of them
  const id = named ?? (kindOfView(here) === kind ? here : kind);
  const view = useDesk((s) => s.views[id]);
  const settings = useMemo(() => settingsIn(kind, view), [kind, view]);
  return [settings, (change) => changeSettings(kind, id, change)];
}

export function settingsOf<K extends ViewKind>(kind: K, id: string): Settings[K] {
  return settingsIn(kind, useDesk.getState().views[id]);
}

export function changeSettings<K extends ViewKind>(kind: K, id: string, change: Partial<Settings[K]>): void {
  const { settings } = viewIn(useDesk.getState(), id);
  if (kindOfView(id) === kind) setView(id, { settings: { ...settings, ...change } });
}

/** Where a view looks. */
export function usePlace(named?: string): Place {
  const here = useHere();
  return useDesk((s) => lookIn(s, named ?? here).place);
}

/** Take a view, with all that are linked to it, to another place. */
export function goTo(id: string, place: Partial<Place>): void {
  setLook(id, (look) => ({ ...look, place: { ...look.place, ...place } }));
}

/** The part of something that a view has in sight, or undefined where that is all of it. */
export function useWindowOf(key: string): number[] | undefined {
  const here = useHere();
  return useDesk((s) => lookIn(s, here).windows[key]);
}

/** Look at parts; null for all of it. */
export function lookAt(id: string, windows: Record<string, number[] | null>): void {
  setLook(id, (look) => ({
    ...look,
    windows: Object.fromEntries(
      Object.entries({ ...look.windows, ...windows }).filter((each): each is [string, number[]] => each[1] !== null),
    ),
  }));
}

/** Put a view into a group, where it looks as the group does, or out of all, where it stays as it is. */
export function linkTo(id: string, link: Link | null): void {
  const desk = useDesk.getState();
  const own = lookIn(desk, id);
  // the first of a group gives it its place
  const links = link && !desk.links[link] ? { ...desk.links, [link]: own } : desk.links;
  useDesk.setState({ links, views: { ...desk.views, [id]: { ...viewIn(desk, id), link, own } } });
}

export function changeContents(id: string, change: Partial<Contents>): void {
  setView(id, { contents: { ...viewIn(useDesk.getState(), id).contents, ...change } });
}

/** Whether two views follow one cursor. */
export function linked(desk: Pick<DeskState, 'views'>, a: string, b: string): boolean {
  const link = viewIn(desk, a).link;
  return a === b || (link !== null && link === viewIn(desk, b).link);
}

/** The view of a kind that is or was last in front; the first of that kind where none was. */
export function activeOf(kind: ViewKind): string {
  const { active, recent } = useDesk.getState();
  return [active, ...recent].find((id): id is string => id !== null && kindOfView(id) === kind) ?? kind;
}
