import type { EarthObject, Stratigraphy } from '@lithagon/core';
import { type RefObject, useLayoutEffect, useRef } from 'react';
import { useDesk } from '../../state/desk';
import { useUnits } from '../../state/units';
import { useSettings } from '../../state/views';
import type { Size } from '../common/hooks';
import { axisMarks, checkshotMarks, topMarks } from './axis';
import { headingFacts } from './heading';
import { headMarks } from './heads';
import { HEAD, type Panel, wellMarks } from './layout';
import { paint } from './paint';
import { zoneMarks } from './zones';

/** Paint wells, tracks, zones and tops onto a canvas of the panel's size, whenever something of it changes. */
export function usePanelPaint(
  panel: Panel,
  size: Size,
  objects: EarthObject[],
  stratigraphy: Stratigraphy | undefined,
  faciesNames: string[],
): RefObject<HTMLCanvasElement | null> {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [desk] = useSettings('logs');
  const theme = useDesk((s) => s.theme);
  const units = useUnits();
  const unitOf = (v: number) => (desk.depth === 'TWT' ? v : units.to(v, 'm'));
  // drawn in one go: what is behind, tracks, what is in front
  // biome-ignore lint/correctness/useExhaustiveDependencies: the theme's colours are read off the page; units stand for their function
  useLayoutEffect(() => {
    const target = canvas.current;
    const context = target?.getContext('2d');
    if (!target || !context || size.width < 20) return;
    const started = performance.now();
    const ratio = devicePixelRatio;
    [target.width, target.height] = [Math.round(size.width * ratio), Math.round(size.height * ratio)];
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    const style = getComputedStyle(target);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    const ink = { text: colour('--ink'), soft: colour('--slate'), fault: colour('--cinnabar') };
    context.clearRect(0, 0, size.width, size.height);
    const clip = { left: 0, top: HEAD, width: size.width, height: panel.height };
    if (desk.zones) paint(context, zoneMarks(panel, stratigraphy, desk.depth === 'TWT' && desk.seismic !== null), clip);
    for (const well of panel.wells) {
      if (well.left > size.width || well.left + well.width < 0) continue;
      for (const { box, marks } of wellMarks(well, desk, faciesNames)) {
        paint(context, [
          { kind: 'rect', x: box.left, y: box.top, width: box.width, height: box.height, color: '#fdfbf6' },
        ]);
        paint(context, marks, box);
        context.strokeStyle = colour('--ash');
        context.strokeRect(box.left - 0.5, box.top - 0.5, box.width + 1, box.height + 1);
      }
      const facts = headingFacts(well.column, objects, (m, u) => units.text(m, u, 0));
      paint(context, headMarks(well, desk, desk.heading.map((h) => facts[h] ?? '').filter(Boolean), units, ink));
      paint(context, axisMarks(well, panel, unitOf, ink.soft), clip);
      paint(context, checkshotMarks(well, ink.soft), clip);
      if (well.hangs) paint(context, topMarks(well, { text: '#22262a', fault: '#b3322b' }), clip);
    }
    target.dataset.drawMs = (performance.now() - started).toFixed(1);
  }, [panel, size, stratigraphy, desk, objects, faciesNames, units, theme]);
  return canvas;
}
