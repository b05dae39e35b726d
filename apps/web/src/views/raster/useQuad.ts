import { type RefObject, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import { useDrawing } from './drawing';
import { graphicsPainter } from './graphics';
import { mixKey } from './mix';
import { processorPainter } from './processor';
import type { Quad } from './quad';
import { whenRestored } from './renderer';

/** Draw a grid into a canvas: a change of look or window draws again and computes nothing. */
export function useQuad(quad: Quad): RefObject<HTMLCanvasElement | null> {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawing = useDrawing();
  const painter = useMemo(() => (drawing === 'processor' ? processorPainter() : graphicsPainter()), [drawing]);
  const draw = () => {
    if (!canvas.current) return;
    const started = performance.now();
    const scale = devicePixelRatio;
    painter.paint(canvas.current, quad, Math.round(quad.width * scale), Math.round(quad.height * scale));
    canvas.current.dataset.drawMs = (performance.now() - started).toFixed(1);
  };
  // drawn again only where something that it shows has changed
  const { data, rows, samples, corners, window, look, mix, sum, width, height } = quad;
  const state = `${corners.join()} ${window.join()} ${JSON.stringify(look)} ${mix ? mixKey(mix) : ''} ${sum?.weights.join() ?? ''} ${width} ${height}`;
  const [second, third, fourth] = mix?.more ?? [sum?.second];
  // biome-ignore lint/correctness/useExhaustiveDependencies: the state stands for what is drawn
  useLayoutEffect(draw, [data, second, third, fourth, rows, samples, state, painter]);
  const latest = useRef(draw);
  latest.current = draw;
  useEffect(() => whenRestored(() => latest.current()), []);
  // what is measured against: the same picture again
  useEffect(() => {
    const drawn = canvas.current;
    const again = () => latest.current();
    drawn?.addEventListener('redraw', again);
    return () => drawn?.removeEventListener('redraw', again);
  }, []);
  useEffect(() => () => painter.free(), [painter]);
  return canvas;
}
