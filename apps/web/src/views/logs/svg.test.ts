import { expect, test } from 'vitest';
import type { Mark } from './marks';
import { svgDocument, svgOf } from './svg';

const BAD = '"/><script>alert(1)</script><x y="';
const marks: Mark[] = [
  { kind: 'rect', x: 0, y: 0, width: 1, height: 1, color: BAD, stroke: BAD, pattern: BAD },
  { kind: 'area', points: Float32Array.of(0, 0, 1, 1), color: BAD, pattern: BAD },
  { kind: 'line', points: Float32Array.of(0, 0, 1, 1), color: BAD, width: 1 },
  { kind: 'dot', x: 0, y: 0, r: 1, color: BAD },
  { kind: 'text', x: 0, y: 0, text: `${BAD}\u0000\u001b`, color: BAD, size: 9 },
];

test('nothing that marks hold becomes an element or ends an attribute, and control characters are left out', () => {
  for (const mark of marks) {
    const svg = svgDocument(10, 10, svgOf([mark]), '');
    expect(svg).not.toContain('<script');
    expect(svg).not.toMatch(/[^\P{Cc}\n]/u);
    // every quote that is not of the markup itself is written as an entity
    expect(svg.replace(/"[^"<>]*"/g, '')).not.toContain('"');
  }
});
