import { type CurveClass, curvesOf } from '@lithagon/core';
import { useMemo } from 'react';
import { pathText } from '../../picture/path';
import { styleOfClass } from '../../state/logsTemplate';
import { useProject } from '../../state/project';
import { useArray } from '../../views/common/hooks';
import type { ShownWell } from '../../views/common/survey';
import { type Frame, scales } from '../../views/section/frame';
import { traceOf } from '../../views/section/geometry';

/** How far a curve swings to the right of its well, pixels. */
const WIDE = 46;
/** Points that a curve is drawn with at most. */
const MOST = 1500;

/** A log of a class beside the path of its well, its least at the path; in its usual scale and colour. */
export function LogAlong(props: { well: ShownWell; of: CurveClass; frame: Frame; reach: number }) {
  const { well, of, frame, reach } = props;
  const objects = useProject((s) => s.objects);
  const held = useMemo(() => curvesOf(objects, well.well.name).get(of), [objects, well, of]);
  const values = useArray(held?.logs.id, `${held?.logs.revision}/${held?.curve.mnemonic}`, held?.curve.data);
  const { x, y } = scales(frame);
  if (!held || !values) return null;
  const style = styleOfClass(of);
  const [from, to] = style ? [style.from, style.to] : [held.curve.min, held.curve.max];
  const part = (v: number) => {
    const f = style?.log ? Math.log(v / from) / Math.log(to / from) : (v - from) / (to - from);
    return Math.max(0, Math.min(1, f));
  };
  const { firstM, stepM } = held.logs.depth;
  const every = Math.max(1, Math.ceil(values.length / MOST));
  const points: [number, number][] = [];
  for (let n = 0; n < values.length; n += every) {
    const [px, py, tvdss, twt] = well.at(firstM + n * stepM);
    const [trace, off] = traceOf(frame.line, px, py);
    const v = frame.domain === 'twt' ? twt : tvdss;
    const seen = off <= reach && Number.isFinite(v) && !Number.isNaN(values[n]);
    points.push(seen ? [x(trace) + 4 + WIDE * part(values[n]), y(v)] : [Number.NaN, Number.NaN]);
  }
  const d = pathText(points);
  return (
    <g fill="none" data-log={of}>
      <path d={d} stroke="#fffdf7" strokeOpacity={0.75} strokeWidth={3} />
      <path d={d} stroke={style?.color ?? '#17191b'} strokeWidth={1.1}>
        <title>
          {of} of {well.well.name}
        </title>
      </path>
    </g>
  );
}
