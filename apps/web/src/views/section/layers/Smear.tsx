import { type FrequencySpec, smearOf, velocityAt } from '@lithagon/core';
import { useMemo } from 'react';
import { useProject } from '../../../state/project';
import { useLinkedCursor } from '../../common/useLinkedCursor';
import css from '../../common/view.module.css';
import { type Frame, scales } from '../frame';
import { traceOf } from '../geometry';

/** How far a frequency that is tried smears a thin bed, drawn at the pointer: whole width at half of the amplitude. */
export function Smear({ frame, params }: { frame: Frame; params: Record<string, unknown> }) {
  const objects = useProject((s) => s.objects);
  const at = useLinkedCursor();
  const twt = at?.vertical != null && at.domain === 'twt' && frame.domain === 'twt' ? at.vertical : null;
  const near = twt === null ? null : Math.round(twt / 50) * 50;
  const known = useMemo(() => (near === null ? null : velocityAt(objects, near)), [objects, near]);
  if (!at || twt === null) return null;
  const { x, y } = scales(frame);
  const [trace] = traceOf(frame.line, at.x, at.y);
  const ms = smearOf(params as unknown as FrequencySpec, Number(params.hz));
  const [px, top, base] = [x(trace), y(twt - ms / 2), y(twt + ms / 2)];
  const metres = known && ` · ${((ms * known.velocity) / 2000).toFixed(0)} m`;
  return (
    <g data-testid="smear" data-ms={ms.toFixed(1)}>
      {['#fffdf7', '#17191b'].map((color, n) => (
        <path
          key={color}
          d={`M${px - 6} ${top}h12M${px} ${top}V${base}M${px - 6} ${base}h12`}
          stroke={color}
          strokeWidth={n === 0 ? 4 : 1.6}
          fill="none"
        />
      ))}
      <text x={px + 10} y={base + 4} className={css.onData}>
        {ms.toFixed(0)} ms{metres}
      </text>
    </g>
  );
}
