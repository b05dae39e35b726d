import type { Fault, OnSection } from '@lithagon/core';
import { useMemo } from 'react';
import { carriedOver, type Picked, pathTo, wouldPick } from '../../../actions/picking/section';
import { pathText } from '../../../picture/path';
import { useCursor } from '../../../state/cursor';
import { useHere } from '../../../state/here';
import { useProject } from '../../../state/project';
import { type PickTool, settingOf, type Tool, useTool } from '../../../state/tool';
import { type Frame, scales } from '../frame';
import { reachOf, traceOf } from '../geometry';
import { brushPixels } from '../tools/bodies';
import { Measured } from './Measured';

const GREEN = '#1f766d';
const PAPER = '#fffdf7';

/** What is being drawn on a section, and what the next click would do. */
export function Handwork(props: {
  frame: Frame;
  on: Picked | null;
  stroke: { places: OnSection[] } | null;
  /** How far off the line before may lie for its picks to be proposed here, metres. */
  neighbour: number;
}) {
  const tool = useTool((s) => s.tool);
  const { frame, on, stroke, neighbour } = props;
  // faults and horizons are drawn in time, and what is drawn of them stands there
  if ((tool?.kind === 'fault' || tool?.kind === 'pick') && frame.domain !== 'twt') return null;
  if (tool?.kind === 'fault') return <Stick tool={tool} frame={frame} />;
  if (tool?.kind === 'measure') return <Measured tool={tool} frame={frame} />;
  if (tool?.kind === 'body brush') return <BodyBrush tool={tool} frame={frame} stroke={stroke} />;
  if (tool?.kind !== 'pick' || !on) return null;
  const { x, y } = scales(frame);
  const drawn = (stroke?.places ?? []).map(([t, v]): [number, number] => [x(t), y(v)]);
  return (
    <g>
      {!tool.rub && <Proposal tool={tool} on={on} frame={frame} reach={neighbour} />}
      {drawn.length > 1 && (
        <g fill={tool.rub === 'ring' ? '#1f766d33' : 'none'}>
          <path d={pathText(drawn, tool.rub === 'ring')} stroke={PAPER} strokeWidth={4.6} />
          <path d={pathText(drawn, tool.rub === 'ring')} stroke={GREEN} strokeWidth={2} />
        </g>
      )}
      <AtPointer tool={tool} on={on} frame={frame} />
    </g>
  );
}

/** A brush at the pointer, and the stroke that it draws. */
function BodyBrush(props: {
  tool: Extract<Tool, { kind: 'body brush' }>;
  frame: Frame;
  stroke: { places: OnSection[] } | null;
}) {
  const { tool, frame, stroke } = props;
  const here = useHere();
  const at = useCursor((s) => (s.at?.from === here ? s.at : null));
  const { x, y } = scales(frame);
  const [rx, ry] = brushPixels(tool, frame);
  const color = tool.does === 'puts in' ? GREEN : '#b3322b';
  const pointer: OnSection[] = at && at.vertical !== null ? [[traceOf(frame.line, at.x, at.y)[0], at.vertical]] : [];
  return (
    <g data-testid="body-brush">
      {(stroke?.places ?? []).map(([t, v], n) => (
        <ellipse key={n} cx={x(t)} cy={y(v)} rx={rx} ry={ry} fill={color} fillOpacity={0.2} />
      ))}
      {pointer.map(([t, v]) => (
        <ellipse key="pointer" cx={x(t)} cy={y(v)} rx={rx} ry={ry} fill="none" stroke={color} strokeWidth={1.6} />
      ))}
    </g>
  );
}

/** Sticks of the fault being drawn, and the one that waits for its end. */
function Stick({ tool, frame }: { tool: Extract<Tool, { kind: 'fault' }>; frame: Frame }) {
  const fault = useProject((s) => (tool.id ? s.byId.get(tool.id) : undefined)) as Fault | undefined;
  const { x, y } = scales(frame);
  const reach = Math.max(13, reachOf(frame.line));
  const sticks = [...(fault?.sticks ?? []), tool.stick];
  return (
    <>
      {sticks.map((stick, n) => {
        const points = stick.flatMap((p): [number, number][] => {
          const [trace, off] = traceOf(frame.line, p[0], p[1]);
          return off < reach ? [[x(trace), y(p[2])]] : [];
        });
        return points.length === 0 ? null : (
          <g key={n} fill="none">
            <path d={pathText(points)} stroke={PAPER} strokeWidth={4.6} />
            <path d={pathText(points)} stroke={GREEN} strokeWidth={2} />
            {points.map(([px, py]) => (
              <circle key={`${px} ${py}`} cx={px} cy={py} r={3.2} fill={PAPER} stroke={GREEN} strokeWidth={1.5} />
            ))}
          </g>
        );
      })}
    </>
  );
}

/** Which way of picking is on, the window that is searched, and the event or path that a click would take. */
function AtPointer({ tool, on, frame }: { tool: PickTool; on: Picked; frame: Frame }) {
  const here = useHere();
  const at = useCursor((s) => (s.at?.from === here ? s.at : null));
  if (!at || at.vertical === null) return null;
  const { x, y } = scales(frame);
  const { box } = frame;
  const trace = Math.round(traceOf(frame.line, at.x, at.y)[0]);
  const [px, py] = [x(trace), y(at.vertical)];
  const time = tool.rub ? Number.NaN : wouldPick(tool, on, trace, at.vertical);
  const path = Number.isNaN(time) ? [] : pathTo(tool, on, trace, time);
  const text = `${settingOf(tool)}${!tool.rub && Number.isNaN(time) ? ' · none here' : ''}`;
  const wide = 8 + 6.2 * text.length;
  // beside the pointer, on the side that has room
  const beside = px + 14 + wide > box.left + box.width ? px - 14 - wide : px + 14;
  const left = Math.max(box.left + 2, beside);
  const top = py + 34 > box.top + box.height ? py - 30 : py + 14;
  return (
    <g data-testid="pick-pointer" style={{ pointerEvents: 'none' }}>
      {!tool.rub && tool.how !== 'free-hand' && (
        <path
          d={`M${px - 5} ${y(at.vertical - tool.snapMs)}h10M${px} ${y(at.vertical - tool.snapMs)}V${y(at.vertical + tool.snapMs)}M${px - 5} ${y(at.vertical + tool.snapMs)}h10`}
          stroke={GREEN}
          strokeWidth={1.2}
          fill="none"
        />
      )}
      {path.length > 1 && (
        <path
          d={pathText(path.map(([t, v]) => [x(t), y(v)]))}
          fill="none"
          stroke={GREEN}
          strokeWidth={1.6}
          strokeDasharray="4 3"
        />
      )}
      {!Number.isNaN(time) && (
        <path
          d={`M${px - 5} ${y(time)}L${px} ${y(time) - 5}L${px + 5} ${y(time)}L${px} ${y(time) + 5}Z`}
          fill="#fffdf7aa"
          stroke={GREEN}
          strokeWidth={1.5}
        />
      )}
      {tool.rub === 'brush' && <circle cx={px} cy={py} r={tool.brush} fill="#b3322b22" stroke="#b3322b" />}
      <rect x={left} y={top} width={wide} height={17} rx={3} fill={PAPER} fillOpacity={0.92} stroke={GREEN} />
      <text x={left + 5} y={top + 12} style={{ fill: '#17191b' }}>
        {text}
      </text>
    </g>
  );
}

/** Picks of the neighbouring line where they would stand on this one, until they are accepted. */
function Proposal(props: { tool: PickTool; on: Picked; frame: Frame; reach: number }) {
  const { tool, on, frame, reach } = props;
  const points = useProject((s) => (tool.id ? s.byId.get(tool.id)?.revision : undefined));
  // biome-ignore lint/correctness/useExhaustiveDependencies: the revision stands for the picks
  const places = useMemo(() => carriedOver(tool, on, reach), [points, tool.how, tool.event, tool.snapMs, on, reach]);
  const { x, y } = scales(frame);
  return (
    <g data-testid="proposed-picks">
      {places.map(([t, v]) => (
        <circle key={t} cx={x(t)} cy={y(v)} r={2.6} fill={PAPER} stroke={GREEN} strokeWidth={1.1} />
      ))}
    </g>
  );
}
