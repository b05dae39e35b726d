import { type Picks, toMap } from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import { binAt, type PickedSlice, pathOnSlice, picksInBins } from '../../../actions/picking/slice';
import { pathText } from '../../../picture/path';
import { useCursor } from '../../../state/cursor';
import { useHere } from '../../../state/here';
import { type PickTool, settingOf } from '../../../state/tool';
import { useUnits } from '../../../state/units';
import type { Size } from '../../common/hooks';
import type { Stroke } from '../tools/pick';

const GREEN = '#1f766d';
const PAPER = '#fffdf7';

/** The trace under the pointer is read once it rests so long, ms. */
const RESTS = 90;

/** What the next click on a slice would do: how the tool is set, the path that it would follow, and the time that it would take. */
export function PicksAtHand(props: {
  tool: PickTool;
  on: PickedSlice;
  stroke: Stroke;
  size: Size;
  place(x: number, y: number): [number, number];
}) {
  const { tool, on, stroke, size, place } = props;
  const here = useHere();
  const units = useUnits();
  const at = useCursor((s) => (s.at?.from === here ? s.at : null));
  const bin = at && binAt(on, at.x, at.y);
  const key = bin ? bin.join() : '';
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the bin
  const path = useMemo(() => (bin && !tool.rub ? pathOnSlice(tool, on, bin) : []), [key, tool, on]);
  const pick = usePickThere(tool, on, bin, key);
  const drawn = stroke.map((p) => place(...p));
  if (!at || !bin) return null;
  const middle = toMap(on.volume.binGrid, ...bin);
  const [px, py] = place(...middle);
  const [x, y] = place(at.x, at.y);
  const where =
    tool.rub || tool.how === 'free-hand'
      ? ''
      : pick === undefined
        ? ''
        : pick === null
          ? ' · none here'
          : ` · at ${units.text(pick[2], 'ms', 1)}`;
  const text = `${settingOf(tool)}${where}`;
  const wide = 8 + 6.2 * text.length;
  // beside the pointer, on the side that has room
  const left = Math.max(2, x + 14 + wide > size.width ? x - 14 - wide : x + 14);
  const top = y + 34 > size.height ? y - 30 : y + 14;
  return (
    <g data-testid="pick-pointer" style={{ pointerEvents: 'none' }}>
      {drawn.length > 1 && (
        <g fill={tool.rub === 'ring' ? '#1f766d33' : 'none'}>
          <path d={pathText(drawn, tool.rub === 'ring')} stroke={PAPER} strokeWidth={4.6} />
          <path d={pathText(drawn, tool.rub === 'ring')} stroke={GREEN} strokeWidth={2} />
        </g>
      )}
      {path.length > 1 && (
        <path
          d={pathText(path.map((b) => place(...toMap(on.volume.binGrid, ...b))))}
          fill="none"
          stroke={GREEN}
          strokeWidth={1.8}
          strokeDasharray="4 3"
        />
      )}
      {!tool.rub && pick !== null && (
        <path
          d={`M${px - 5} ${py}L${px} ${py - 5}L${px + 5} ${py}L${px} ${py + 5}Z`}
          fill="#fffdf7aa"
          stroke={GREEN}
          strokeWidth={1.5}
        />
      )}
      {tool.rub === 'brush' && <circle cx={x} cy={y} r={tool.brush} fill="#b3322b22" stroke="#b3322b" />}
      <rect x={left} y={top} width={wide} height={17} rx={3} fill={PAPER} fillOpacity={0.92} stroke={GREEN} />
      <text x={left + 5} y={top + 12} style={{ fill: '#17191b' }}>
        {text}
      </text>
    </g>
  );
}

/** The pick that a click in a bin would make; null where there is no event, undefined until its trace is read. */
function usePickThere(
  tool: PickTool,
  on: PickedSlice,
  bin: [number, number] | null,
  key: string,
): Picks['points'][number] | null | undefined {
  const [found, setFound] = useState<{ key: string; pick: Picks['points'][number] | null } | null>(null);
  const full = `${key} ${on.time} ${tool.how} ${tool.event} ${tool.snapMs}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for all of them
  useEffect(() => {
    if (!bin || tool.rub) return;
    let wanted = true;
    const timer = setTimeout(() => {
      picksInBins(tool, on, [bin]).then(
        ([pick]) => wanted && setFound({ key: full, pick: pick ?? null }),
        () => undefined,
      );
    }, RESTS);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [full]);
  return found?.key === full ? found.pick : undefined;
}
