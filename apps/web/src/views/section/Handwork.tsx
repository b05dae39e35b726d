import type { EarthObject, Fault, Picks } from '@lithagon/core';
import { pathText } from '../../picture/path';
import { useTool } from '../../state/tool';
import { traceOf } from './geometry';
import { type Frame, scales } from './Overlay';

/** Picks and fault sticks that lie on a section, and the stick being drawn. */
export function Handwork({ frame, objects }: { frame: Frame; objects: EarthObject[] }) {
  const tool = useTool((s) => s.tool);
  const { x, y } = scales(frame);
  const here = (p: [number, number, number]): [number, number] | null => {
    const [trace, off] = traceOf(frame.line, p[0], p[1]);
    return off < 13 ? [x(trace), y(p[2])] : null;
  };
  const picks = objects.filter((o): o is Picks => o.kind === 'picks');
  const drawnFault = tool?.kind === 'fault' ? objects.find((o): o is Fault => o.id === tool.id) : undefined;
  const sticks = [...(drawnFault?.sticks ?? []), ...(tool?.kind === 'fault' ? [tool.stick] : [])];
  return (
    <g>
      {picks.map((object) =>
        object.points.map((p) => {
          const at = here(p);
          if (!at) return null;
          const current = tool?.kind === 'pick' && tool.id === object.id;
          return (
            <path
              key={p.join()}
              d={`M${at[0] - 4.5} ${at[1]}L${at[0]} ${at[1] - 4.5}L${at[0] + 4.5} ${at[1]}L${at[0]} ${at[1] + 4.5}Z`}
              fill={current ? '#1f766d' : '#fffdf7'}
              stroke={current ? '#fffdf7' : '#1f766d'}
              strokeWidth={1.5}
            >
              <title>{object.name}</title>
            </path>
          );
        }),
      )}
      {sticks.map((stick, n) => {
        const points = stick.map(here).filter((p) => p !== null);
        return points.length === 0 ? null : (
          <g key={n} fill="none">
            <path d={pathText(points)} stroke="#fffdf7" strokeWidth={4.6} />
            <path d={pathText(points)} stroke="#1f766d" strokeWidth={2} />
            {points.map(([px, py]) => (
              <circle key={`${px} ${py}`} cx={px} cy={py} r={3.2} fill="#fffdf7" stroke="#1f766d" strokeWidth={1.5} />
            ))}
          </g>
        );
      })}
    </g>
  );
}
