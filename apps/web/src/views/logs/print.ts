import { type EarthObject, type Stratigraphy, type Units, xmlText } from '@lithagon/core';
import type { LogsDesk } from '../../state/logsTemplate';
import { axisMarks, checkshotMarks, topMarks } from './axis';
import type { WellColumn } from './columns';
import { headingFacts } from './heading';
import { headMarks } from './heads';
import { HEAD, layOut, wellMarks } from './layout';
import type { Mark } from './marks';
import { PIXEL_M } from './scale';
import { svgDocument, svgOf } from './svg';
import { zoneMarks } from './zones';

/**
 * The panel as an SVG on paper: every well whole in width, and as high as the part in view is at the nearest round scale
 * of 1 : n (in TWT, at ten centimetres to the second).
 */
export function printPanel(
  columns: WellColumn[],
  desk: LogsDesk,
  stratigraphy: Stratigraphy | undefined,
  objects: EarthObject[],
  units: Units,
  faciesNames: string[],
  window: [number, number],
  spacing: number[],
  scale = 500,
): Blob {
  const inTime = desk.depth === 'TWT';
  const height = inTime ? ((window[1] - window[0]) * 0.0001) / PIXEL_M : (window[1] - window[0]) / scale / PIXEL_M;
  const ink = { text: '#22262a', soft: '#5d656c' };
  const narrow = layOut(
    columns,
    { ...desk, spaced: false },
    { width: 1e5, height: HEAD + height + 4 },
    window,
    spacing,
  );
  const width = Math.ceil(narrow.width) + 10;
  const panel = layOut(columns, desk, { width, height: HEAD + height + 4 }, window, spacing);
  let clips = `<clipPath id="body"><rect x="0" y="${HEAD}" width="${width}" height="${height}"/></clipPath>`;
  let body = desk.zones ? svgOf(zoneMarks(panel, stratigraphy), 'body') : '';
  panel.wells.forEach((well, n) => {
    const facts = headingFacts(well.column, objects, (m, u) => units.text(m, u, 0));
    wellMarks(well, desk, faciesNames).forEach(({ box, marks }, t) => {
      const id = `track-${n}-${t}`;
      clips += `<clipPath id="${id}"><rect x="${box.left}" y="${box.top}" width="${box.width}" height="${box.height}"/></clipPath>`;
      body += `<rect x="${box.left}" y="${box.top}" width="${box.width}" height="${box.height}" fill="#fdfbf6" stroke="#ded8cb"/>${svgOf(marks, id)}`;
    });
    body += svgOf(headMarks(well, desk, desk.heading.map((h) => facts[h] ?? '').filter(Boolean), units, ink));
    body += svgOf(
      axisMarks(well, panel, (v) => (inTime ? v : units.to(v, 'm')), ink.soft),
      'body',
    );
    body += svgOf(checkshotMarks(well, ink.soft), 'body');
    if (!well.hangs) return;
    body += svgOf(topMarks(well, { text: '#22262a', fault: '#b3322b' }), 'body');
    const names = well.column.tops.map(
      (top): Mark => ({
        kind: 'text',
        x: well.left + well.width + 3,
        y: well.y(top.md) - 2,
        text: top.name,
        color: ink.text,
        size: 9,
      }),
    );
    body += svgOf(names, 'body');
  });
  const foot = inTime ? '10 cm to the second' : `1 : ${scale} on paper`;
  const tall = HEAD + height + 30;
  body += `<text x="8" y="${tall - 10}" font-size="11" fill="#5d656c">${xmlText(`${desk.depth}${desk.hang ? `, hung on ${desk.hang}` : ''} · ${foot}`)}</text>`;
  return new Blob([svgDocument(width, tall, body, clips)], { type: 'image/svg+xml' });
}
