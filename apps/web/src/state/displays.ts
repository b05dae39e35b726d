import { useMemo } from 'react';
import { useDesk } from './desk';
import { useHere } from './here';
import { type Display, type Displays, displayOf } from './views/display';
import { viewIn } from './views/index';

type Drawn = { id: string; quantity: string };

/** How volumes are drawn in the view that one stands in: as they are everywhere, but for those of which it has colours of its own. */
export function useDisplays(): Displays {
  const here = useHere();
  const shared = useDesk((s) => s.display);
  const own = useDesk((s) => viewIn(s, here).colors);
  return useMemo(() => ({ ...shared, ...own }), [shared, own]);
}

/** Change how something is drawn: in one view where that has colours of its own for it, else wherever it is drawn. */
export function setDisplay(of: Drawn, change: Partial<Display>, view?: string): void {
  useDesk.setState((s) => {
    const own = view === undefined ? undefined : viewIn(s, view).colors[of.id];
    const next = { ...(own ?? displayOf(s.display, of)), ...change };
    if (view === undefined || !own) return { display: { ...s.display, [of.id]: next } };
    return colored(s.views, view, { ...viewIn(s, view).colors, [of.id]: next });
  });
}

/** Give a view colours of its own for something, beginning with those that it has, or let it share them again. */
export function setOwnColors(of: Drawn, view: string, own: boolean): void {
  useDesk.setState((s) => {
    const { [of.id]: _, ...others } = viewIn(s, view).colors;
    return colored(s.views, view, own ? { ...others, [of.id]: displayOf(s.display, of) } : others);
  });
}

const colored = (views: ReturnType<typeof useDesk.getState>['views'], view: string, colors: Displays) => ({
  views: { ...views, [view]: { ...viewIn({ views }, view), colors } },
});
