import type { EarthObject, Fault, Horizon } from '@lithagon/core';
import { windOf } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { colorOf } from '../../kinds';
import { pathText } from '../../picture/path';
import { useCursor } from '../../state/cursor';
import { usePlotSelection } from '../../state/plotSelection';
import { useProject } from '../../state/project';
import { useUnits } from '../../state/units';
import { useArray } from '../common/hooks';
import { type ShownWell, shownHorizons } from '../common/survey';
import css from '../common/view.module.css';
import type { Window } from '../raster/Raster';
import { faultAlong, horizonAlong, type SectionLine, traceOf, wellAlong } from './geometry';
import { Handwork } from './Handwork';

export interface Frame {
  line: SectionLine;
  window: Window;
  box: { left: number; top: number; width: number; height: number };
  domain: 'twt' | 'depth';
}

export const scales = ({ window, box }: Frame) => ({
  x: scaleLinear([window.x0, window.x1], [box.left, box.left + box.width]),
  y: scaleLinear([window.y0, window.y1], [box.top, box.top + box.height]),
});

/** Ticks outside the data: line numbers on top, TWT or depth at the left, and which way the section faces. */
export function Axes(frame: Frame) {
  const { line, window, box, domain } = frame;
  const units = useUnits();
  const { x, y } = scales(frame);
  const shown = (v: number) => units.to(v, domain === 'twt' ? 'ms' : 'm');
  const vertical = scaleLinear(y.domain().map(shown), y.range());
  const [n0, n1] = [line.number(window.x0), line.number(window.x1)];
  const lines = scaleLinear([n0, n1], [box.left, box.left + box.width]);
  const [dx, dy] = [line.to[0] - line.from[0], line.to[1] - line.from[1]];
  const right = box.left + box.width;
  return (
    <g>
      <text x={box.left} y={11} className={css.compass}>
        {windOf(-dx, -dy)}
      </text>
      <text x={right} y={11} textAnchor="end" className={css.compass}>
        {windOf(dx, dy)}
      </text>
      <text x={box.left + box.width / 2} y={11} textAnchor="middle">
        {line.along}
      </text>
      {lines
        .ticks(Math.max(2, Math.floor(box.width / 80)))
        .filter(Number.isInteger)
        .map((t) => (
          <g key={t}>
            <line x1={lines(t)} x2={lines(t)} y1={box.top - 5} y2={box.top - 1} className={css.axis} />
            <text
              x={Math.min(right - 12, Math.max(box.left + 12, lines(t)))}
              y={box.top - 8}
              textAnchor="middle"
              className={css.tick}
            >
              {t}
            </text>
          </g>
        ))}
      {vertical.ticks(Math.max(2, Math.floor(box.height / 55))).map((t) => (
        <g key={t}>
          <line x1={box.left - 5} x2={box.left - 1} y1={vertical(t)} y2={vertical(t)} className={css.axis} />
          <text
            x={box.left - 8}
            y={Math.min(box.top + box.height, Math.max(box.top + 8, vertical(t) + 4))}
            textAnchor="end"
            className={css.tick}
          >
            {t}
          </text>
        </g>
      ))}
      <text transform={`translate(11 ${box.top + box.height / 2}) rotate(-90)`} textAnchor="middle">
        {domain === 'twt' ? 'TWT (ms)' : `Depth (${units.of('m')})`}
      </text>
      <rect x={box.left} y={box.top} width={box.width} height={box.height} fill="none" stroke="var(--ash)" />
      <title>{x.domain().join(' to ')}</title>
    </g>
  );
}

/** A horizon along the section; one that is out of date is broken, and says so. */
function HorizonLine(props: { frame: Frame; horizon: Horizon; color: string; old: boolean }) {
  const { frame, horizon, color, old } = props;
  const values = useArray(horizon.id, horizon.revision, horizon.values);
  if (!values) return null;
  const { x, y } = scales(frame);
  const points = horizonAlong(frame.line, horizon, values).map(([t, v]): [number, number] => [x(t), y(v)]);
  const d = pathText(points);
  // the name stands where more than a lone point begins
  const first = points.find(([, v], n) => Number.isFinite(v) && Number.isFinite(points[n + 1]?.[1]));
  return (
    <g fill="none" strokeLinejoin="round">
      <path d={d} stroke="#fffdf7" strokeOpacity={0.85} strokeWidth={3.6} />
      <path d={d} stroke={color} strokeWidth={1.6} strokeDasharray={old ? '5 3' : undefined} />
      {first && (
        <Label
          x={Math.max(frame.box.left + 5, first[0] + 5)}
          y={first[1] - 5}
          text={old ? `${horizon.name}, out of date` : horizon.name}
          color={color}
        />
      )}
    </g>
  );
}

/** Text on data: its colour comes from the data's ground, not from the theme. */
function Label(props: {
  x: number;
  y: number;
  text: string;
  color: string;
  anchor?: 'middle' | 'start';
  bold?: boolean;
}) {
  return (
    <text
      x={props.x}
      y={props.y}
      textAnchor={props.anchor ?? 'start'}
      style={{
        fill: props.color,
        stroke: '#fffdf7',
        strokeWidth: 3,
        paintOrder: 'stroke',
        fontWeight: props.bold ? 640 : 560,
      }}
    >
      {props.text}
    </text>
  );
}

function FaultLine({ frame, fault }: { frame: Frame; fault: Fault }) {
  const { x, y } = scales(frame);
  const d = faultAlong(frame.line, fault)
    .map(([a, va, b, vb]) =>
      pathText([
        [x(a), y(va)],
        [x(b), y(vb)],
      ]),
    )
    .join('');
  return (
    <g fill="none" strokeLinecap="round">
      <path d={d} stroke="#fffdf7" strokeOpacity={0.8} strokeWidth={4.6} />
      <path d={d} stroke={fault.color ?? '#17191b'} strokeWidth={2.2}>
        <title>{fault.name}</title>
      </path>
    </g>
  );
}

function WellLine({ frame, well }: { frame: Frame; well: ShownWell }) {
  const { x, y } = scales(frame);
  const points = wellAlong(frame.line, well, frame.domain, 130).map(([t, v]) => [x(t), y(v)] as [number, number]);
  if (points.length < 2) return null;
  const [top] = points;
  return (
    <g fill="none">
      <path d={pathText(points)} stroke="#fffdf7" strokeOpacity={0.8} strokeWidth={4} />
      <path d={pathText(points)} stroke="#17191b" strokeWidth={1.5} />
      <Label
        x={top[0]}
        y={Math.max(frame.box.top + 14, top[1] + 14)}
        text={well.well.name}
        color="#17191b"
        anchor="middle"
        bold
      />
      <LitUp frame={frame} well={well} />
      {well.tops.map((t) => {
        const [trace, off] = traceOf(frame.line, t.x, t.y);
        const vertical = frame.domain === 'twt' ? t.twt : t.tvdss;
        if (off > 130 || !Number.isFinite(vertical) || t.name === 'Sea Bed') return null;
        return (
          <g key={`${t.name}${t.tvdss}`}>
            <line
              x1={x(trace) - 7}
              x2={x(trace) + 7}
              y1={y(vertical)}
              y2={y(vertical)}
              stroke="#fffdf7"
              strokeWidth={4}
            />
            <line
              x1={x(trace) - 7}
              x2={x(trace) + 7}
              y1={y(vertical)}
              y2={y(vertical)}
              stroke="#17191b"
              strokeWidth={1.6}
            />
            <Label x={x(trace) + 10} y={y(vertical) + 4} text={t.name} color="#17191b" />
          </g>
        );
      })}
    </g>
  );
}

/** Parts of a well whose points are selected in a crossplot. */
function LitUp({ frame, well }: { frame: Frame; well: ShownWell }) {
  const now = usePlotSelection((s) => s.now);
  const intervals = now?.wells.get(well.well.name);
  if (!now || !intervals) return null;
  const { x, y } = scales(frame);
  return (
    <g data-testid="lit-section">
      {intervals.map(([from, to]) => {
        const ends = [from, to].map((md) => {
          const [px, py, tvdss, twt] = well.at(md);
          const [trace] = traceOf(frame.line, px, py);
          return [x(trace), y(frame.domain === 'twt' ? twt : tvdss)] as [number, number];
        });
        return <path key={from} d={pathText(ends)} stroke={now.color} strokeWidth={7} strokeOpacity={0.85} />;
      })}
    </g>
  );
}

function CursorLines({ frame }: { frame: Frame }) {
  const at = useCursor((s) => s.at);
  if (!at) return null;
  const { x, y } = scales(frame);
  const { box, line } = frame;
  const [trace] = traceOf(line, at.x, at.y);
  const px = x(trace);
  const py = at.vertical !== null && at.domain === frame.domain ? y(at.vertical) : null;
  return (
    <g>
      {px >= box.left && px <= box.left + box.width && (
        <line className={css.cursor} x1={px} x2={px} y1={box.top} y2={box.top + box.height} />
      )}
      {py !== null && py >= box.top && py <= box.top + box.height && (
        <line className={css.cursor} y1={py} y2={py} x1={box.left} x2={box.left + box.width} />
      )}
    </g>
  );
}

/** Everything that is drawn over a section: horizons, faults, wells, the linked cursor. */
export function Overlay(props: { frame: Frame; objects: EarthObject[]; wells: ShownWell[] }) {
  const { frame, objects, wells } = props;
  const { box, domain } = frame;
  const old = useProject((s) => s.old);
  const horizons = shownHorizons(objects, domain);
  const faults = objects.filter((o): o is Fault => o.kind === 'fault');
  return (
    <svg className={css.overlay} aria-hidden="true" style={{ pointerEvents: 'none' }}>
      <defs>
        <clipPath id="section-box">
          <rect x={box.left} y={box.top} width={box.width} height={box.height} />
        </clipPath>
      </defs>
      <g clipPath="url(#section-box)">
        {faults
          .filter((f) => f.domain === domain)
          .map((f) => (
            <FaultLine key={f.id} frame={frame} fault={f} />
          ))}
        {horizons.map((h) => (
          <HorizonLine key={h.id} frame={frame} horizon={h} color={colorOf(h, objects)} old={old.has(h.id)} />
        ))}
        {domain === 'twt' && <Handwork frame={frame} objects={objects} />}
        {wells.map((w) => (
          <WellLine key={w.well.id} frame={frame} well={w} />
        ))}
        <CursorLines frame={frame} />
      </g>
      <Axes {...frame} />
    </svg>
  );
}
