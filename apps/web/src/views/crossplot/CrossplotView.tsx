import {
  bandAt,
  curvesOf,
  FACIES,
  freeName,
  newDrawn,
  type PlotClass,
  type PlotRequest,
  type PlotWindow,
  topsOf,
  trendsFor,
  type Well,
} from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useEffect, useMemo, useRef, useState } from 'react';
import { colorMap } from '../../color/maps';
import { useDesk } from '../../state/desk';
import { edit } from '../../state/history';
import { usePlotSelection } from '../../state/plotSelection';
import { useProject } from '../../state/project';
import { useUnits } from '../../state/units';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Field';
import { useSize } from '../common/hooks';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import { faciesColor } from '../logs/marks';
import css from './Crossplot.module.css';
import type { PlotDesk } from './plotDesk';
import { lightUp, type Picture, type PlotFacts, usePicture, usePlotFacts } from './usePlot';

const MARGIN = { left: 62, top: 14, right: 14, bottom: 44 };
const CLASS_COLORS = ['#b4641e', '#1f766d', '#7b4f8f', '#b3322b', '#3f6f9f', '#7a7a2f'];

const change = (part: Partial<PlotDesk>) => useDesk.setState((s) => ({ plot: { ...s.plot, ...part } }));

/** Two quantities against each other, a third as colour; points drawn round light up in the other views. */
export function CrossplotView() {
  const objects = useProject((s) => s.objects);
  const desk = useDesk((s) => s.plot);
  const wells = useMemo(() => objects.filter((o): o is Well => o.kind === 'well'), [objects]);
  const curves = useMemo(
    () => [...new Set(wells.flatMap((w) => [...curvesOf(objects, w.name).keys()]))].sort(),
    [objects, wells],
  );
  const tops = useMemo(
    () => [...new Set(wells.flatMap((w) => topsOf(objects, w.name).map((t) => t.name)))],
    [objects, wells],
  );
  const grids = objects.filter((o) => o.kind === 'map' || o.kind === 'horizon');
  const volumes = objects.filter((o) => o.kind === 'volume');
  const areas = objects.filter((o) => o.kind === 'polygon' && o.closed);
  const options =
    desk.from === 'logs'
      ? curves.map((c) => ({ value: c, label: c }))
      : (desk.from === 'maps' ? grids : volumes).map((o) => ({ value: o.id, label: o.name }));
  const valid = (of: string | null) => of !== null && options.some((o) => o.value === of);
  const request = useMemo<PlotRequest | null>(
    () =>
      valid(desk.x.of) && valid(desk.y.of)
        ? {
            ...desk,
            color: valid(desk.color) || desk.color === FACIES ? desk.color : null,
            wells: desk.wells ?? wells.map((w) => w.id),
          }
        : null,
    // biome-ignore lint/correctness/useExhaustiveDependencies: what is valid follows from the objects
    [desk, wells, valid],
  );
  const { facts, problem } = usePlotFacts(request);
  const label = (of: string) => options.find((o) => o.value === of)?.label ?? of;
  const along = objects.find((o) => o.id === desk.x.of);
  const verticalUnit = along?.kind === 'volume' && along.domain === 'depth' ? 'm' : 'ms';
  const from = (kind: PlotDesk['from']) => {
    const list = kind === 'logs' ? curves : (kind === 'maps' ? grids : volumes).map((o) => o.id);
    change({
      from: kind,
      x: { of: kind === 'logs' ? 'sonic' : (list[0] ?? ''), log: false },
      y: { of: kind === 'logs' ? 'density' : (list[1] ?? list[0] ?? ''), log: false },
      color: kind === 'logs' ? 'gamma ray' : null,
      ...(kind === 'volumes' ? { fromVertical: 900, toVertical: 1100 } : {}),
    });
  };
  return (
    <ViewFrame
      view="crossplot"
      title="Crossplot"
      subtitle={
        request
          ? `${label(desk.x.of)} against ${label(desk.y.of)}${facts ? ` · ${facts.count.toLocaleString('en').replace(/,/g, '\u202f')} points` : ''}`
          : ''
      }
      notShown={(facts?.notes ?? []).map((n) => ({ name: n.split(' ')[0], why: n.slice(n.indexOf(' ') + 1) }))}
      fixed="depth"
    >
      <div className={css.whole}>
        <div className={css.strip} role="toolbar" aria-label="Crossplot">
          <Select
            label="Points from"
            value={desk.from}
            options={[
              { value: 'logs', label: 'Logs' },
              { value: 'maps', label: 'Maps' },
              { value: 'volumes', label: 'Volumes' },
            ]}
            onChange={(v) => from(v as PlotDesk['from'])}
          />
          {(['x', 'y'] as const).map((axis) => (
            <span key={axis} className={css.axis}>
              {axis === 'x' ? 'across' : 'up'}
              <Select
                label={axis === 'x' ? 'Across' : 'Up'}
                value={desk[axis].of}
                options={options}
                onChange={(v) => change({ [axis]: { of: v, log: v === 'resistivity' } })}
              />
              <label>
                <input
                  type="checkbox"
                  checked={desk[axis].log}
                  onChange={(e) => change({ [axis]: { ...desk[axis], log: e.target.checked } })}
                />
                log
              </label>
            </span>
          ))}
          <span className={css.axis}>
            colour
            <Select
              label="Colour"
              value={desk.color ?? ''}
              options={[
                { value: '', label: 'number of points' },
                ...(desk.from === 'logs' ? [{ value: FACIES, label: 'facies' }] : []),
                ...options,
              ]}
              onChange={(v) => change({ color: v || null })}
            />
          </span>
          {desk.from === 'logs' ? (
            <>
              <Select
                label="Well"
                value={desk.wells?.[0] ?? ''}
                options={[{ value: '', label: 'all wells' }, ...wells.map((w) => ({ value: w.id, label: w.name }))]}
                onChange={(v) => change({ wells: v ? [v] : null })}
              />
              <span className={css.axis}>
                from
                <Select
                  label="From top"
                  value={desk.top}
                  options={[{ value: '', label: 'first sample' }, ...tops.map((t) => ({ value: t, label: t }))]}
                  onChange={(v) => change({ top: v })}
                />
                to
                <Select
                  label="To top"
                  value={desk.base}
                  options={[{ value: '', label: 'last sample' }, ...tops.map((t) => ({ value: t, label: t }))]}
                  onChange={(v) => change({ base: v })}
                />
              </span>
            </>
          ) : (
            <Select
              label="Inside"
              value={desk.area ?? ''}
              options={[
                { value: '', label: 'everywhere' },
                ...areas.map((a) => ({ value: a.id, label: `inside ${a.name}` })),
              ]}
              onChange={(v) => change({ area: v || null })}
            />
          )}
          {desk.from === 'volumes' &&
            (['fromVertical', 'toVertical'] as const).map((key) => (
              <label key={key}>
                {key === 'fromVertical' ? 'from' : 'to'}
                <input
                  className={css.short}
                  type="number"
                  aria-label={key === 'fromVertical' ? 'From time or depth' : 'To time or depth'}
                  value={desk[key]}
                  onChange={(e) => change({ [key]: Number(e.target.value) || 0 })}
                />
                {key === 'toVertical' && verticalUnit}
              </label>
            ))}
          <label>
            <input type="checkbox" checked={desk.fit} onChange={(e) => change({ fit: e.target.checked })} />
            regression
          </label>
          {desk.from === 'logs' && (
            <label>
              <input type="checkbox" checked={desk.trends} onChange={(e) => change({ trends: e.target.checked })} />
              trends
            </label>
          )}
        </div>
        {!request && (
          <EmptyView title="A crossplot shows one quantity against another.">
            <span>
              {options.length < 2
                ? 'There are not two of these yet: load logs, or make maps or volumes.'
                : 'Choose what goes across and up.'}
            </span>
          </EmptyView>
        )}
        {problem && <EmptyView title={problem} />}
        {request && facts && !problem && (
          <Plot
            key={`${desk.from}${desk.x.of}${desk.x.log}${desk.y.of}${desk.y.log}`}
            facts={facts}
            desk={desk}
            labels={[label(desk.x.of), label(desk.y.of), label(desk.color ?? '')]}
          />
        )}
      </div>
    </ViewFrame>
  );
}

function Plot({ facts, desk, labels }: { facts: PlotFacts; desk: PlotDesk; labels: string[] }) {
  const objects = useProject((s) => s.objects);
  const units = useUnits();
  const [ref, element, size] = useSize<HTMLDivElement>();
  const [kept, setKept] = useState<PlotWindow | null>(null);
  const [ring, setRing] = useState<[number, number][]>([]);
  const [count, setCount] = useState(0);
  const drawing = useRef(false);
  const pan = useRef<{ x: number; y: number; window: PlotWindow } | null>(null);
  const window = kept ?? facts.window;
  const box = {
    left: MARGIN.left,
    top: MARGIN.top,
    width: Math.max(10, Math.floor(size.width - MARGIN.left - MARGIN.right)),
    height: Math.max(10, Math.floor(size.height - MARGIN.top - MARGIN.bottom)),
  };
  const cells = { width: Math.ceil(box.width / 2), height: Math.ceil(box.height / 2) };
  const picture = usePicture(facts, size.width > 20 ? window : null, cells.width, cells.height);
  const x = scaleLinear([window.x0, window.x1], [box.left, box.left + box.width]);
  const y = scaleLinear([window.y0, window.y1], [box.top + box.height, box.top]);
  const classes = objects.filter(
    (o): o is PlotClass => o.kind === 'crossplot class' && o.x.of === desk.x.of && o.y.of === desk.y.of,
  );
  const color = CLASS_COLORS[classes.length % CLASS_COLORS.length];
  const of = desk.from === 'logs' ? '' : desk.x.of;
  const test =
    desk.from === 'volumes'
      ? { x: desk.x.of, y: desk.y.of, xLog: desk.x.log, yLog: desk.y.log, from: desk.fromVertical, to: desk.toVertical }
      : null;

  // the selection follows the ring as it is drawn
  // biome-ignore lint/correctness/useExhaustiveDependencies: the ring alone decides
  useEffect(() => {
    let wanted = true;
    void lightUp(facts, ring, color, of, test).then((n) => wanted && setCount(n));
    return () => {
      wanted = false;
    };
  }, [ring, facts]);
  useEffect(() => () => usePlotSelection.setState({ now: null }), []);

  useEffect(() => {
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const rect = element.getBoundingClientRect();
      const [cx, cy] = [x.invert(event.clientX - rect.left), y.invert(event.clientY - rect.top)];
      const f = Math.exp(Math.max(-80, Math.min(80, event.deltaY)) * 0.003);
      setKept({
        x0: cx + (window.x0 - cx) * f,
        x1: cx + (window.x1 - cx) * f,
        y0: cy + (window.y0 - cy) * f,
        y1: cy + (window.y1 - cy) * f,
      });
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  });
  const at = (event: React.PointerEvent): [number, number] => {
    const rect = element?.getBoundingClientRect();
    return [x.invert(event.clientX - (rect?.left ?? 0)), y.invert(event.clientY - (rect?.top ?? 0))];
  };
  const keep = () => {
    const made = newDrawn<PlotClass>({
      kind: 'crossplot class',
      name: freeName(objects, 'crossplot class', 'Class'),
      x: desk.x,
      y: desk.y,
      ring: ring.map(([a, b]) => [desk.x.log ? 10 ** a : a, desk.y.log ? 10 ** b : b]),
      color,
    });
    void edit(`Keep ${made.name}`, [], [made]).then(() => setRing([]));
  };
  const inPlot = (p: [number, number][]) =>
    p.map(([a, b], n) => `${n ? 'L' : 'M'}${x(a).toFixed(1)} ${y(b).toFixed(1)}`).join('');
  const logged = (v: number, log: boolean) => (log ? Math.log10(v) : v);
  const ticks = (scale: typeof x, log: boolean, unit: string, span: number) =>
    scale
      .ticks(Math.max(3, span / 80))
      .filter((t) => !log || Number.isInteger(t) || span > 500)
      .map((t) => ({ at: scale(t), text: String(Number(units.to(log ? 10 ** t : t, unit).toPrecision(4))) }));
  const { fit } = facts;
  const trends = desk.trends && desk.from === 'logs' ? trendsFor(desk.x.of, desk.y.of) : [];
  const unitText = (unit: string) => (units.of(unit) && units.of(unit) !== '1' ? ` (${units.of(unit)})` : '');
  return (
    <>
      <div
        ref={ref}
        className={css.plot}
        role="img"
        aria-label={`${labels[0]} against ${labels[1]}`}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          if (e.button === 1) pan.current = { x: e.clientX, y: e.clientY, window };
          else {
            drawing.current = true;
            setRing([at(e)]);
          }
        }}
        onPointerMove={(e) => {
          if (pan.current) {
            const p = pan.current;
            const dx = ((e.clientX - p.x) / box.width) * (p.window.x1 - p.window.x0);
            const dy = ((e.clientY - p.y) / box.height) * (p.window.y1 - p.window.y0);
            setKept({ x0: p.window.x0 - dx, x1: p.window.x1 - dx, y0: p.window.y0 + dy, y1: p.window.y1 + dy });
          } else if (drawing.current) setRing((r) => [...r, at(e)]);
        }}
        onPointerUp={() => {
          pan.current = null;
          drawing.current = false;
          // a click without a stroke lets go
          setRing((r) => (r.length < 6 ? [] : r));
        }}
        onDoubleClick={() => setKept(null)}
      >
        <Density picture={picture} box={box} range={facts.colorRange} classes={facts.classes} />
        {picture?.classes && <Margins picture={picture} box={box} classes={facts.classes} />}
        <svg width={size.width} height={size.height} className={css.overlay}>
          <title>{`${labels[0]} against ${labels[1]}`}</title>
          <clipPath id="plot-box">
            <rect x={box.left} y={box.top} width={box.width} height={box.height} />
          </clipPath>
          <rect x={box.left} y={box.top} width={box.width} height={box.height} className={css.frame} />
          {ticks(x, desk.x.log, facts.unitX, box.width).map((t) => (
            <g key={`x${t.at}`}>
              <line x1={t.at} x2={t.at} y1={box.top + box.height} y2={box.top + box.height + 4} className={css.tick} />
              <text x={t.at} y={box.top + box.height + 16} textAnchor="middle" className={css.number}>
                {t.text}
              </text>
            </g>
          ))}
          {ticks(y, desk.y.log, facts.unitY, box.height).map((t) => (
            <g key={`y${t.at}`}>
              <line x1={box.left - 4} x2={box.left} y1={t.at} y2={t.at} className={css.tick} />
              <text x={box.left - 7} y={t.at + 4} textAnchor="end" className={css.number}>
                {t.text}
              </text>
            </g>
          ))}
          <text x={box.left + box.width / 2} y={box.top + box.height + 34} textAnchor="middle">
            {labels[0]}
            {unitText(facts.unitX)}
          </text>
          <text transform={`translate(14 ${box.top + box.height / 2}) rotate(-90)`} textAnchor="middle">
            {labels[1]}
            {unitText(facts.unitY)}
          </text>
          <g clipPath="url(#plot-box)">
            {trends.map((t) => {
              const points = t.points.map(([a, b]): [number, number] => [logged(a, desk.x.log), logged(b, desk.y.log)]);
              const last = points
                .filter(([a, b]) => a > window.x0 && a < window.x1 && b > window.y0 && b < window.y1)
                .at(-1);
              return (
                <g key={t.name}>
                  <path d={inPlot(points)} className={css.trend} />
                  {last && (
                    <text x={x(last[0])} y={y(last[1]) - 5} textAnchor="end" className={css.onData}>
                      {t.name}
                    </text>
                  )}
                </g>
              );
            })}
            {desk.fit &&
              fit &&
              [-1, 0, 1].map((side) => (
                <path
                  key={side}
                  className={side === 0 ? css.fit : css.band}
                  d={inPlot(
                    Array.from({ length: 40 }, (_, n) => {
                      const a = window.x0 + ((window.x1 - window.x0) * n) / 39;
                      return [a, fit.intercept + fit.slope * a + side * bandAt(fit, a)] as [number, number];
                    }),
                  )}
                />
              ))}
            {classes.map((c) => (
              <path
                key={c.id}
                d={`${inPlot(c.ring.map(([a, b]) => [logged(a, desk.x.log), logged(b, desk.y.log)]))}Z`}
                fill={c.color ?? '#b4641e'}
                fillOpacity={0.14}
                stroke={c.color ?? '#b4641e'}
                strokeWidth={1.5}
              />
            ))}
            {ring.length > 1 && (
              <path d={`${inPlot(ring)}Z`} fill={color} fillOpacity={0.18} stroke={color} strokeWidth={2} />
            )}
          </g>
        </svg>
      </div>
      <div className={css.foot}>
        <Legend facts={facts} label={labels[2]} picture={picture} />
        {desk.fit && fit && (
          <span className="num">
            slope {fit.slope.toPrecision(3)} · r {fit.r.toFixed(2)} · leaves {fit.spread.toPrecision(3)} rms; dashed: 95
            of 100 points
          </span>
        )}
        {ring.length > 2 ? (
          <>
            <b>{count.toLocaleString('en').replace(/,/g, '\u202f')} points selected</b>
            <Button small onClick={keep}>
              Keep as a class
            </Button>
            <Button small onClick={() => setRing([])}>
              Let go
            </Button>
          </>
        ) : (
          <span>Draw round points: they light up in logs, map and section.</span>
        )}
      </div>
    </>
  );
}

interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Red, green and blue of a colour written in hexadecimal. */
const partsOf = (color: string) => [1, 3, 5].map((at) => Number.parseInt(color.slice(at, at + 2), 16));

/** Red, green, blue and opacity of cells of which no class is known: faint, as no class is. */
const UNNAMED = [150, 150, 150, 80];

/** Bars along an axis, and how far the highest reaches into the plot. */
const [BARS, HIGH] = [48, 46];

/** How each class is spread along both axes: bars stacked at the upper and right edge of the plot. */
function Margins({ picture, box, classes }: { picture: Picture; box: Box; classes: string[] }) {
  const { across, up } = useMemo(() => {
    const rows = () => Array.from({ length: BARS }, () => new Float64Array(classes.length));
    const [a, u] = [rows(), rows()];
    for (let n = 0; n < picture.counts.length; n++) {
      const c = picture.classes?.[n] ?? -1;
      if (c < 0) continue;
      a[Math.floor(((n % picture.width) * BARS) / picture.width)][c] += picture.counts[n];
      u[Math.floor((Math.floor(n / picture.width) * BARS) / picture.height)][c] += picture.counts[n];
    }
    // each bar as pieces from the edge inwards
    const stacked = (bars: Float64Array[]) => {
      const most = Math.max(1, ...bars.map((b) => b.reduce((p, q) => p + q, 0)));
      return bars.flatMap((bar, at) => {
        let from = 0;
        return Array.from(bar, (v, c) => {
          const size = (v / most) * HIGH;
          from += size;
          return { at, c, from: from - size, size };
        }).filter((p) => p.size > 0);
      });
    };
    return { across: stacked(a), up: stacked(u) };
  }, [picture, classes]);
  const [w, h] = [box.width / BARS, box.height / BARS];
  return (
    <svg
      className={css.overlay}
      style={{ left: box.left, top: box.top }}
      width={box.width}
      height={box.height}
      aria-hidden="true"
    >
      <g fillOpacity={0.6}>
        {across.map((p) => (
          <rect
            key={`a${p.at}.${p.c}`}
            x={p.at * w}
            y={p.from}
            width={w - 0.6}
            height={p.size}
            fill={faciesColor(classes[p.c], classes)}
          />
        ))}
        {up.map((p) => (
          <rect
            key={`u${p.at}.${p.c}`}
            x={box.width - p.from - p.size}
            y={p.at * h}
            width={p.size}
            height={h - 0.6}
            fill={faciesColor(classes[p.c], classes)}
          />
        ))}
      </g>
    </svg>
  );
}

/** The raster, coloured by what the points are or by how many there are. */
function Density(props: { picture: Picture | null; box: Box; range: [number, number] | null; classes: string[] }) {
  const { picture, box, range, classes } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const target = canvas.current;
    const context = target?.getContext('2d');
    if (!target || !context || !picture) return;
    [target.width, target.height] = [picture.width, picture.height];
    const image = context.createImageData(picture.width, picture.height);
    const rgb = colorMap(picture.means ? 'strata' : 'lichen');
    const top = Math.log1p(picture.most);
    const names = classes.map((c) => partsOf(faciesColor(c, classes)));
    for (let n = 0; n < picture.counts.length; n++) {
      const many = picture.counts[n];
      if (many === 0) continue;
      if (picture.classes) {
        const named = names[picture.classes[n]];
        image.data.set(named ? [...named, 255] : UNNAMED, 4 * n);
        continue;
      }
      const mean = picture.means?.[n];
      const f =
        mean !== undefined && range
          ? mean === mean
            ? (mean - range[0]) / (range[1] - range[0])
            : -1
          : 0.25 + (0.75 * Math.log1p(many)) / top;
      const c = 3 * Math.round(255 * Math.max(0, Math.min(1, f)));
      if (f < 0 && mean !== mean) image.data.set([150, 150, 150, 200], 4 * n);
      else image.data.set([rgb[c], rgb[c + 1], rgb[c + 2], 255], 4 * n);
    }
    context.putImageData(image, 0, 0);
    target.dataset.tookMs = picture.tookMs.toFixed(1);
  }, [picture, range, classes]);
  return (
    <canvas
      ref={canvas}
      data-testid="crossplot-raster"
      className={css.raster}
      style={{ left: box.left, top: box.top, width: box.width, height: box.height }}
    />
  );
}

function Legend({ facts, label, picture }: { facts: PlotFacts; label: string; picture: Picture | null }) {
  const units = useUnits();
  if (facts.classes.length > 0)
    return (
      <span className={css.legend}>
        {facts.classes.map((c) => (
          <span key={c} className={css.legend}>
            <i style={{ background: faciesColor(c, facts.classes), width: 11 }} />
            {c}
          </span>
        ))}
        <span className={css.legend}>
          <i style={{ background: `rgb(${UNNAMED.slice(0, 3)} / ${UNNAMED[3] / 255})`, width: 11 }} />
          no facies
        </span>
      </span>
    );
  const map = colorMap(facts.colorRange ? 'strata' : 'lichen');
  const stops = [0, 0.25, 0.5, 0.75, 1].map((f) => {
    const c = 3 * Math.round(255 * f);
    return `rgb(${map[c]},${map[c + 1]},${map[c + 2]})`;
  });
  const ends = facts.colorRange
    ? facts.colorRange.map((v) => Number(units.to(v, facts.unitColor).toPrecision(3)))
    : [1, picture?.most ?? 1];
  return (
    <span className={css.legend}>
      <span className="num">{ends[0]}</span>
      <i style={{ background: `linear-gradient(90deg, ${stops.join(', ')})` }} />
      <span className="num">{ends[1]}</span>
      {facts.colorRange
        ? `${label}${units.of(facts.unitColor) && units.of(facts.unitColor) !== '1' ? ` (${units.of(facts.unitColor)})` : ''}`
        : 'points in a cell'}
    </span>
  );
}
