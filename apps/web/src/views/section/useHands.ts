import type { SeismicLine, Volume } from '@lithagon/core';
import { finishStick, pickAt, unpickAt } from '../../actions/draw';
import { useCursor } from '../../state/cursor';
import { takeTool, useTool } from '../../state/tool';
import type { PlaneState } from '../common/hooks';
import type { Window } from '../raster/Raster';
import { placeOf, type SectionLine, traceOf, valueAt } from './geometry';
import type { At } from './useWindow';

/** What hands do on a section: read it out, pick horizons and draw faults, by pointer and by keys. */
export function useHands(surface: {
  volume: Volume | SeismicLine;
  line: SectionLine;
  data: PlaneState | null;
  window: Window;
  at(clientX: number, clientY: number): At;
  domain: 'twt' | 'depth';
  /** Whether a trial is shown, on which nothing is drawn. */
  trial: boolean;
}) {
  const { volume, line, data, window, at, domain, trial } = surface;
  const tool = useTool((s) => s.tool);
  const drawing = (tool?.kind === 'pick' || tool?.kind === 'fault') && domain === 'twt' && !trial;
  const act = (trace: number, vertical: number) => {
    if (!data || data.coarse || trace < 0 || trace > line.traces - 1) return;
    if (tool?.kind === 'pick') void pickAt(tool, line, volume, data.data, trace, vertical);
    if (tool?.kind === 'fault') takeTool({ ...tool, stick: [...tool.stick, [...placeOf(line, trace), vertical]] });
  };
  const follow = (trace: number, vertical: number) => {
    const [x, y] = placeOf(line, trace);
    useCursor.setState({
      at: {
        x,
        y,
        vertical,
        domain,
        value: data && !data.coarse ? valueAt(volume, data.data, trace, vertical) : null,
        quantity: trial ? 'trial' : volume.quantity,
        unit: volume.unit,
        from: 'section',
      },
    });
  };
  return {
    drawing,
    move(event: React.PointerEvent) {
      const p = at(event.clientX, event.clientY);
      if (!p.inside) return useCursor.setState({ at: null });
      follow(p.trace, p.vertical);
    },
    down(event: React.PointerEvent) {
      const p = at(event.clientX, event.clientY);
      if (p.inside && event.detail < 2) act(p.trace, p.vertical);
    },
    /** The right button takes the nearest pick away, or ends a stick. */
    turn(event: React.MouseEvent) {
      if (!drawing) return;
      event.preventDefault();
      const p = at(event.clientX, event.clientY);
      if (tool?.kind === 'pick') void unpickAt(tool, line, p.trace, p.vertical);
      else void finishStick();
    },
    /** Arrows move the cursor where the view has the focus, Enter does what a click would. */
    key(event: React.KeyboardEvent) {
      const cursor = useCursor.getState().at;
      if (event.key === 'Escape') return takeTool(null);
      if (event.key === 'Backspace' && tool?.kind === 'fault')
        return takeTool({ ...tool, stick: tool.stick.slice(0, -1) });
      if (event.key === 'Enter') {
        event.preventDefault();
        if (event.shiftKey || !cursor || cursor.vertical === null) return void finishStick();
        const [trace] = traceOf(line, cursor.x, cursor.y);
        return act(trace, cursor.vertical);
      }
      const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
      if (!by) return;
      event.preventDefault();
      const far = event.shiftKey ? 10 : 1;
      const [from] = cursor ? traceOf(line, cursor.x, cursor.y) : [(window.x0 + window.x1) / 2];
      const trace = Math.max(0, Math.min(line.traces - 1, Math.round(from) + by[0] * far));
      const vertical = (cursor?.vertical ?? (window.y0 + window.y1) / 2) + by[1] * far * volume.vertical.step;
      follow(trace, vertical);
    },
  };
}
