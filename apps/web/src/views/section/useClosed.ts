import {
  type CutDown,
  closedBy,
  cutDown,
  type Fault,
  matchByThrow,
  pairAcross,
  type SectionSamples,
  type SeismicLine,
  type Volume,
} from '@lithagon/core';
import { useEffect, useMemo } from 'react';
import { useClosing } from '../../state/closing';
import { useProject } from '../../state/project';
import { useTool } from '../../state/tool';
import type { PlaneState } from '../common/hooks';
import { faultAlong, type SectionLine } from './geometry';

/** Throw that is looked for, both ways, in samples. */
const MOST = 50;

/** The samples of a section, with the fault that is being closed on it closed by the trial throw. */
export function useClosed(
  shown: Volume | SeismicLine,
  line: SectionLine,
  samples: PlaneState | null,
): PlaneState | null {
  const tool = useTool((s) => (s.tool?.kind === 'close' ? s.tool : null));
  const fault = useProject((s) => (tool ? (s.byId.get(tool.fault) as Fault | undefined) : undefined));
  const on = fault && fault.domain === shown.domain ? fault : undefined;
  const { first, step, count } = shown.vertical;
  const section = useMemo(
    (): SectionSamples | null =>
      on && samples && !samples.coarse ? { data: samples.data, traces: line.traces, count, first, step } : null,
    [on, samples, line.traces, count, first, step],
  );
  const cut = useMemo(
    (): CutDown | null => (on && section ? cutDown(faultAlong(line, on), section) : null),
    [on, section, line],
  );
  const [at, height, thrown] = [tool?.at ?? null, tool?.height ?? 0, tool?.throw ?? 0];
  const levels = useMemo(() => {
    const there = cut ? [...cut.at.keys()].filter((k) => !Number.isNaN(cut.at[k])) : [];
    return there.length > 0
      ? { from: first + there[0] * step, to: first + (there[there.length - 1] ?? 0) * step }
      : null;
  }, [cut, first, step]);
  const middle = at ?? (levels ? (levels.from + levels.to) / 2 : 0);
  const found = useMemo(
    () => (section && cut ? matchByThrow(section, cut, middle, height, MOST * step) : null),
    [section, cut, middle, height, step],
  );
  useEffect(() => {
    if (!section || !cut || !found || !on || !levels) return useClosing.setState({ closing: null });
    const pair = pairAcross(section, cut, middle, thrown);
    useClosing.setState({
      closing: {
        ...found,
        ...levels,
        fault: on.id,
        pair: pair?.map(([trace, level]) => [...line.place(trace), level]) ?? null,
      },
    });
    return () => useClosing.setState({ closing: null });
  }, [section, cut, found, on, levels, middle, thrown, line]);
  return useMemo(
    () =>
      section && cut && samples && thrown !== 0
        ? { ...samples, key: `${samples.key}/closed ${thrown}`, data: closedBy(section, cut, thrown) }
        : samples,
    [section, cut, samples, thrown],
  );
}
