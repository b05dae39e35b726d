import type { Mark } from './marks';
import { PATTERNS } from './patterns';

const patterns = new Map<string, CanvasPattern | null>();

function patternFor(context: CanvasRenderingContext2D, name: string): CanvasPattern | null {
  const known = patterns.get(name);
  if (known !== undefined) return known;
  const tile = document.createElement('canvas');
  [tile.width, tile.height] = [12, 12];
  const c = tile.getContext('2d');
  const { dots = [], lines = [] } = PATTERNS[name] ?? {};
  if (c) {
    c.strokeStyle = c.fillStyle = 'rgba(34,38,42,0.5)';
    c.lineWidth = 0.8;
    for (const [x, y] of dots) c.fillRect(x, y, 1.3, 1.3);
    for (const [x0, y0, x1, y1] of lines) {
      c.beginPath();
      c.moveTo(x0, y0);
      c.lineTo(x1, y1);
      c.stroke();
    }
  }
  const made = context.createPattern(tile, 'repeat');
  patterns.set(name, made);
  return made;
}

/** Draw marks on a canvas, clipped to a box. */
export function paint(
  context: CanvasRenderingContext2D,
  marks: Mark[],
  clip?: { left: number; top: number; width: number; height: number },
): void {
  context.save();
  if (clip) {
    context.beginPath();
    context.rect(clip.left, clip.top, clip.width, clip.height);
    context.clip();
  }
  for (const mark of marks)
    switch (mark.kind) {
      case 'rect':
        context.fillStyle = mark.color;
        context.fillRect(mark.x, mark.y, mark.width, mark.height);
        if (mark.pattern) {
          const pattern = patternFor(context, mark.pattern);
          if (pattern) {
            context.fillStyle = pattern;
            context.fillRect(mark.x, mark.y, mark.width, mark.height);
          }
        }
        break;
      case 'area':
      case 'line': {
        const { points } = mark;
        context.beginPath();
        context.moveTo(points[0], points[1]);
        for (let n = 2; n < points.length; n += 2) context.lineTo(points[n], points[n + 1]);
        if (mark.kind === 'area') {
          context.fillStyle = mark.color;
          context.fill();
          const pattern = mark.pattern ? patternFor(context, mark.pattern) : null;
          if (pattern) {
            context.fillStyle = pattern;
            context.fill();
          }
        } else {
          context.setLineDash(mark.dash ?? []);
          context.strokeStyle = mark.color;
          context.lineWidth = mark.width;
          context.stroke();
        }
        break;
      }
      case 'dot':
        context.fillStyle = mark.color;
        context.beginPath();
        context.arc(mark.x, mark.y, mark.r, 0, 2 * Math.PI);
        context.fill();
        break;
      case 'text':
        context.fillStyle = mark.color;
        context.font = `${mark.weight ?? 400} ${mark.size}px "Hanken Grotesk Variable", sans-serif`;
        context.textAlign = mark.anchor === 'middle' ? 'center' : mark.anchor === 'end' ? 'right' : 'left';
        context.fillText(mark.text, mark.x, mark.y);
        break;
    }
  context.restore();
}
