import { pathText } from '../../../picture/path';
import { useCursor } from '../../../state/cursor';
import { useHere } from '../../../state/here';
import type { Tool } from '../../../state/tool';
import { type Frame, scales } from '../frame';
import { traceOf } from '../geometry';

/** The two places of a measurement on a section, and the line between them. */
export function Measured({ tool, frame }: { tool: Extract<Tool, { kind: 'measure' }>; frame: Frame }) {
  const here = useHere();
  const cursor = useCursor((s) => (s.at?.from === here ? s.at : null));
  if (tool.view !== here || tool.points.length === 0) return null;
  const { x, y } = scales(frame);
  const ends = [...tool.points];
  if (ends.length === 1 && cursor) ends.push([cursor.x, cursor.y, cursor.vertical]);
  const points = ends.map((p): [number, number] => [x(traceOf(frame.line, p[0], p[1])[0]), y(p[2] ?? 0)]);
  return (
    <g fill="none" data-testid="measured">
      <path d={pathText(points)} stroke="#fffdf7" strokeWidth={4} />
      <path d={pathText(points)} stroke="#1f766d" strokeWidth={1.8} />
      {points.map(([px, py], n) => (
        <circle key={n} cx={px} cy={py} r={3.4} fill="#fffdf7" stroke="#1f766d" strokeWidth={1.5} />
      ))}
    </g>
  );
}
