import { xmlText as escaped } from '@lithagon/core';
import type { Mark } from './marks';
import { PATTERNS } from './patterns';

/** Marks as SVG elements; each may be clipped to a box named before. */
export function svgOf(marks: Mark[], clip?: string): string {
  const out = marks.map((m) => {
    switch (m.kind) {
      case 'rect': {
        const box = `x="${m.x.toFixed(2)}" y="${m.y.toFixed(2)}" width="${m.width.toFixed(2)}" height="${m.height.toFixed(2)}"`;
        return `<rect ${box} fill="${escaped(m.color)}"${m.stroke ? ` stroke="${escaped(m.stroke)}"` : ''}/>${m.pattern ? `<rect ${box} fill="url(#rock-${escaped(m.pattern)})"/>` : ''}`;
      }
      case 'area':
      case 'line': {
        let d = '';
        for (let n = 0; n < m.points.length; n += 2)
          d += `${n ? 'L' : 'M'}${m.points[n].toFixed(2)} ${m.points[n + 1].toFixed(2)}`;
        return m.kind === 'area'
          ? `<path d="${d}Z" fill="${escaped(m.color)}"/>${m.pattern ? `<path d="${d}Z" fill="url(#rock-${escaped(m.pattern)})"/>` : ''}`
          : `<path d="${d}" fill="none" stroke="${escaped(m.color)}" stroke-width="${m.width}"${m.dash ? ` stroke-dasharray="${m.dash.join(' ')}"` : ''}/>`;
      }
      case 'dot':
        return `<circle cx="${m.x.toFixed(2)}" cy="${m.y.toFixed(2)}" r="${m.r.toFixed(2)}" fill="${escaped(m.color)}"/>`;
      default:
        return `<text x="${m.x.toFixed(2)}" y="${m.y.toFixed(2)}" fill="${escaped(m.color)}" font-size="${m.size}" font-weight="${m.weight ?? 400}" text-anchor="${m.anchor ?? 'start'}">${escaped(m.text)}</text>`;
    }
  });
  return clip ? `<g clip-path="url(#${clip})">${out.join('')}</g>` : out.join('');
}

/** A document in millimetres whose units are CSS pixels, so that a scale of 1 : n is true on paper. */
export function svgDocument(width: number, height: number, body: string, clips: string): string {
  const mm = (px: number) => ((px * 25.4) / 96).toFixed(2);
  const rocks = Object.entries(PATTERNS)
    .map(
      ([name, { dots = [], lines = [] }]) =>
        `<pattern id="rock-${name}" width="12" height="12" patternUnits="userSpaceOnUse">${dots.map(([x, y]) => `<rect x="${x}" y="${y}" width="1.3" height="1.3" fill="#22262a" fill-opacity="0.5"/>`).join('')}${lines.map(([a, b, c, d]) => `<path d="M${a} ${b}L${c} ${d}" stroke="#22262a" stroke-opacity="0.5" stroke-width="0.8"/>`).join('')}</pattern>`,
    )
    .join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(width)}mm" height="${mm(height)}mm" viewBox="0 0 ${width} ${height}" font-family="Hanken Grotesk, sans-serif"><defs>${rocks}${clips}</defs><rect width="100%" height="100%" fill="#fdfbf6"/>${body}</svg>`;
}
