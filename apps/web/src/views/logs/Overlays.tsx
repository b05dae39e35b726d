import type { Proposal, Top } from '@lithagon/core';
import { pathText } from '../../picture/path';
import { type LogsDesk, styleOf } from '../../state/logsTemplate';
import { usePlotSelection } from '../../state/plotSelection';
import { useUnits } from '../../state/units';
import css from './Logs.module.css';
import type { Panel, WellBox } from './layout';

/** A top that can be gripped, with its name. */
export function TopLine(props: {
  well: WellBox;
  top: Top;
  panel: Panel;
  chosen: boolean;
  onDown(e: React.PointerEvent): void;
}) {
  const units = useUnits();
  const { well, top, panel, chosen } = props;
  const y = well.y(top.md);
  if (!(y >= panel.top && y <= panel.top + panel.height)) return null;
  const [x0, x1] = [well.left + 40, well.left + well.width];
  return (
    <g className={`${top.kind === 'fault cut' ? css.cut : ''} ${chosen ? css.chosen : ''}`}>
      {chosen && <line className={css.seen} x1={x0} x2={x1} y1={y} y2={y} />}
      <text x={x1 + 3} y={y - 2}>
        {top.name}
        {top.kind === 'fault cut' && top.missingM !== null
          ? ` ${top.missingM > 0 ? 'misses' : 'repeats'} ${units.text(Math.abs(top.missingM), 'm', 0)}`
          : ''}
      </text>
      <line
        className={css.grip}
        style={{ pointerEvents: 'stroke' }}
        x1={x0}
        x2={x1}
        y1={y}
        y2={y}
        onPointerDown={props.onDown}
      />
    </g>
  );
}

/** While a top is dragged: the neighbour's curve about its own top, laid over this well at the pointer. */
export function NeighbourCurve({
  drag,
  panel,
  desk,
}: {
  drag: { well: string; top: Top; md: number };
  panel: Panel;
  desk: LogsDesk;
}) {
  const units = useUnits();
  const n = panel.wells.findIndex((w) => w.column.well.name === drag.well);
  const well = panel.wells[n];
  const y = well?.y(drag.md);
  if (!well || y === undefined) return null;
  const neighbour = [n - 1, n + 1]
    .map((q) => panel.wells[q])
    .find((w) => w?.column.tops.some((t) => t.name === drag.top.name));
  const first = well.tracks.find((t) => t.track.curves.length > 0);
  const key = first?.track.curves[0];
  const curve = key ? neighbour?.column.curves.get(key) : undefined;
  const own = neighbour?.column.tops.find((t) => t.name === drag.top.name);
  const points: [number, number][] = [];
  if (first && key && curve && own && neighbour) {
    const style = styleOf(key, curve, neighbour.column.well.name, desk.styles);
    for (let md = own.md - 40; md < own.md + 40; md += 0.5) {
      const v = curve.values[Math.round((md - curve.firstM) / curve.stepM)];
      if (v === undefined || Number.isNaN(v)) continue;
      const f = style.log
        ? Math.log(v / style.from) / Math.log(style.to / style.from)
        : (v - style.from) / (style.to - style.from);
      points.push([
        first.box.left + Math.max(0, Math.min(1, f)) * first.box.width,
        y + well.y(drag.md + md - own.md) - well.y(drag.md),
      ]);
    }
  }
  return (
    <g>
      <line x1={well.left + 40} x2={well.left + well.width} y1={y} y2={y} stroke="var(--verdigris)" strokeWidth={1.6} />
      <path d={pathText(points)} className={css.neighbourCurve} />
      <text x={well.left + well.width + 3} y={y + 11}>
        {units.text(drag.md, 'm MD', 1)}
        {neighbour ? `; ${neighbour.column.well.name} laid over` : ''}
      </text>
    </g>
  );
}

/** Facies being painted. */
export function Stroke({
  stroke,
  panel,
  color,
}: {
  stroke: { well: string; from: number; to: number };
  panel: Panel;
  color: string;
}) {
  const well = panel.wells.find((w) => w.column.well.name === stroke.well);
  if (!well) return null;
  const [a, b] = [well.y(stroke.from), well.y(stroke.to)].sort((p, q) => p - q);
  return <rect x={well.left + 40} width={well.width - 40} y={a} height={b - a} fill={color} fillOpacity={0.5} />;
}

/** Depths whose points are selected in a crossplot. */
export function LitUp({ panel }: { panel: Panel }) {
  const now = usePlotSelection((s) => s.now);
  if (!now) return null;
  return (
    <g data-testid="lit-logs">
      {panel.wells.flatMap((well) =>
        (now.wells.get(well.column.well.name) ?? []).map(([from, to]) => {
          const y = well.y(from);
          return (
            <rect
              key={from}
              x={well.left + 40}
              width={well.width - 40}
              y={y}
              height={Math.max(0.7, well.y(to) - y)}
              fill={now.color}
              fillOpacity={0.35}
            />
          );
        }),
      )}
    </g>
  );
}

/** A top proposed for a well, with how sure it is; dragged to nudge it. */
export function ProposalLine(props: {
  well: WellBox;
  proposal: Proposal;
  /** Where it stands while it is dragged. */
  md: number;
  onDown(event: React.PointerEvent): void;
}) {
  const { well, proposal: p, md, onDown } = props;
  const y = well.y(md);
  return (
    <g className={css.proposal}>
      <line x1={well.left + 40} x2={well.left + well.width} y1={y} y2={y} />
      <text x={well.left + well.width + 3} y={y + 3}>
        {p.name}
        {p.absent ? ' missing' : ''} {Math.round(100 * p.confidence)} %
      </text>
      <line
        className={css.grip}
        style={{ stroke: 'transparent', strokeWidth: 9, pointerEvents: 'stroke', cursor: 'ns-resize' }}
        x1={well.left + 40}
        x2={well.left + well.width}
        y1={y}
        y2={y}
        onPointerDown={onDown}
      />
    </g>
  );
}
