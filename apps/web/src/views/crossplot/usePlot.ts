import type { LineFit, PlotRequest, PlotWindow } from '@lithagon/core';
import { useEffect, useRef, useState } from 'react';
import type { Ranges } from '../../compute/plots';
import { forViews, unwrap } from '../../compute/pool';
import { type PlotSelection, usePlotSelection } from '../../state/plotSelection';
import { useProject } from '../../state/project';

/** What there is to plot: its extent, units and fit; the points themselves stay in the worker. */
export interface PlotFacts {
  key: string;
  count: number;
  window: PlotWindow;
  colorRange: [number, number] | null;
  /** Names of classes, where colours are classes. */
  classes: string[];
  unitX: string;
  unitY: string;
  unitColor: string;
  /** Units and extents of the further quantities. */
  more: { unit: string; range: [number, number] }[];
  fit: LineFit | null;
  notes: string[];
}

export interface Picture {
  key: string;
  width: number;
  height: number;
  counts: Uint32Array;
  means: Float32Array | null;
  classes: Int16Array | null;
  most: number;
  inside: number;
  tookMs: number;
}

/** What is plotted: the points that came last, and the request that they are of, which may be the one before. */
export interface Gathered {
  facts: PlotFacts | null;
  of: PlotRequest | null;
  problem: string | null;
  /** Whether newer points are on their way. */
  gathering: boolean;
}

/** The points of a request, gathered in the worker. */
export function usePlotFacts(request: PlotRequest | null): Gathered {
  const projectId = useProject((s) => s.id);
  const objects = useProject((s) => s.objects);
  const [state, setState] = useState<Omit<Gathered, 'gathering'> & { key: string }>({
    key: '',
    facts: null,
    of: null,
    problem: null,
  });
  const key = JSON.stringify(request);
  // a change of what is plotted gathers anew
  const revisions = objects.map((o) => o.revision).join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the request
  useEffect(() => {
    if (!request) return;
    let wanted = true;
    forViews()
      .plotGather(projectId, request)
      .then((outcome) => wanted && setState({ key, facts: unwrap(outcome), of: request, problem: null }))
      .catch((cause: Error) => wanted && setState({ key, facts: null, of: request, problem: cause.message }));
    return () => {
      wanted = false;
    };
  }, [key, projectId, revisions]);
  return { ...state, gathering: request !== null && state.key !== key };
}

/** The raster of what is in the window; the newest request wins. */
export function usePicture(
  facts: PlotFacts | null,
  window: PlotWindow | null,
  ranges: Ranges,
  width: number,
  height: number,
): Picture | null {
  const [picture, setPicture] = useState<Picture | null>(null);
  const busy = useRef(false);
  const wanted = useRef<{
    plot: string;
    window: PlotWindow;
    ranges: Ranges;
    width: number;
    height: number;
    key: string;
  } | null>(null);
  const key = `${facts?.key} ${JSON.stringify([window, ranges])} ${width} ${height}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for all of them
  useEffect(() => {
    if (!facts || !window || width < 8) return;
    wanted.current = { plot: facts.key, window, ranges, width, height, key };
    const next = async () => {
      if (busy.current || !wanted.current) return;
      busy.current = true;
      const now = wanted.current;
      const began = performance.now();
      try {
        const made = unwrap(await forViews().plotRaster(now.plot, now.window, now.ranges, now.width, now.height));
        if (made) setPicture({ ...made, key: now.key, tookMs: performance.now() - began });
      } catch {
        // the points have been gathered anew: their own raster follows
      }
      busy.current = false;
      if (wanted.current !== now) void next();
    };
    void next();
  }, [key]);
  return picture;
}

/** How many points lie in several classes at once. */
export function useOverlap(facts: PlotFacts, rings: [number, number][][]): number {
  const [count, setCount] = useState(0);
  useEffect(() => {
    if (rings.length < 2) return setCount(0);
    let wanted = true;
    void forViews()
      .plotOverlap(facts.key, rings)
      .then((outcome) => wanted && outcome.ok && setCount(outcome.value));
    return () => {
      wanted = false;
    };
  }, [facts.key, rings]);
  return count;
}

/** Light up what lies in a ring, in logs, map and section. @returns how many points it holds */
export async function lightUp(
  facts: PlotFacts,
  ring: [number, number][],
  ranges: Ranges,
  color: string,
  of: string,
  test: Omit<NonNullable<PlotSelection['samples']>, 'ring'> | null,
): Promise<number> {
  if (ring.length < 3) {
    usePlotSelection.setState({ now: null });
    return 0;
  }
  const found = unwrap(await forViews().plotSelect(facts.key, ring, ranges));
  usePlotSelection.setState({
    now: found && {
      color,
      wells: new Map(found.wells),
      bins: found.mask ? { of, mask: found.mask } : null,
      samples: test && { ...test, ring },
    },
  });
  return found?.count ?? 0;
}
