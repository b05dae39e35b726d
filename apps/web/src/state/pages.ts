import type { EarthObject, Horizon } from '@lithagon/core';
import { create } from 'zustand';

/** Which of the horizons of a stack is turned up, by the run that made the stack. */
export const usePages = create<{ turned: Record<string, string> }>(() => ({ turned: {} }));

/** The horizons that one run made one below the other, from the top down; nothing where a horizon is in no such stack. */
export function stackOf(horizon: EarthObject | undefined, objects: EarthObject[]): Horizon[] {
  if (horizon?.kind !== 'horizon' || !horizon.madeBy.run || !horizon.madeBy.output?.startsWith('slice/')) return [];
  const number = (h: Horizon) => Number(h.madeBy.output?.split('/')[1]);
  const all = objects.filter(
    (o): o is Horizon =>
      o.kind === 'horizon' && o.madeBy.run === horizon.madeBy.run && !!o.madeBy.output?.startsWith('slice/'),
  );
  return all.length > 1 ? all.sort((a, b) => number(a) - number(b)) : [];
}

const stackKey = ({ madeBy }: Horizon): string => madeBy.run ?? '';

/** The page of a stack that is turned up: at first the one in the middle. */
export function pageOf(stack: Horizon[]): Horizon {
  const turned = usePages.getState().turned[stackKey(stack[0])];
  return stack.find((h) => h.id === turned) ?? stack[stack.length >> 1];
}

export const turnTo = (page: Horizon): void =>
  usePages.setState(({ turned }) => ({ turned: { ...turned, [stackKey(page)]: page.id } }));

/** Turn so many pages on; there are none beyond the first and the last. */
export function turnPages(stack: Horizon[], by: number): Horizon {
  const at = stack.indexOf(pageOf(stack));
  const next = stack[Math.max(0, Math.min(stack.length - 1, at + by))];
  turnTo(next);
  return next;
}

/** Why a horizon is not drawn: another page of its stack is turned up. */
export function behindPage(horizon: Horizon, objects: EarthObject[]): string | null {
  const stack = stackOf(horizon, objects);
  return stack.length === 0 || pageOf(stack).id === horizon.id ? null : 'is another page of its stack';
}
