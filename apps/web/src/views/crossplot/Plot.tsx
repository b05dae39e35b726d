import { bandAt, freeName, newDrawn, type PlotClass, type PlotWindow, trendsFor } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useEffect, useMemo, useRef, useState } from 'react';
import { applyClasses } from '../../actions/plotClasses';
import { edit } from '../../state/history';
import type { PlotDesk } from '../../state/plotDesk';
import { usePlotSelection } from '../../state/plotSelection';
import { useProject } from '../../state/project';
import { useUnits } from '../../state/units';
import { Button } from '../../ui/Button';
import { useSize } from '../common/hooks';
import css from './Crossplot.module.css';
import { Density } from './Density';
import { fitText } from './fit';
import { Legend } from './Legend';
import { type Limit, LimitField } from './LimitField';
import { Margins } from './Margins';
import { usePlaceMarks } from './usePlaceMarks';
import { lightUp, type PlotFacts, useOverlap, usePicture } from './usePlot';

const MARGIN = { left: 62, top: 14, right: 14, bottom: 44 };
const CLASS_COLORS = ['#b4641e', '#1f766d', '#7b4f8f', '#b3322b', '#3f6f9f', '#7a7a2f'];

/** Points of one request: raster, axes, lines through them, and the ring drawn round some. */
export function Plot(props: {
  facts: PlotFacts;
  desk: PlotDesk;
  labels: string[];
  /** Further quantities that the points were gathered with, and the ranges that they are limited to. */
  limits: Limit[];
  onLimits(limits: PlotDesk['limits']): void;
}) {
  const { facts, desk, labels, limits, onLimits } = props;
  // one for each of the further quantities that the points were gathered with
  const ranges = useMemo(
    () => facts.more.map((m, n): [number, number] => limits[n]?.range ?? m.range),
    [facts, limits],
  );
  const objects = useProject((s) => s.objects);
  const units = useUnits();
  const [ref, element, size] = useSize<HTMLDivElement>();
  const [kept, setKept] = useState<PlotWindow | null>(null);
  const [ring, setRing] = useState<[number, number][]>([]);
  const [count, setCount] = useState(0);
  const marks = usePlaceMarks(desk);
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
  const picture = usePicture(facts, size.width > 20 ? window : null, ranges, cells.width, cells.height);
  const x = scaleLinear([window.x0, window.x1], [box.left, box.left + box.width]);
  const y = scaleLinear([window.y0, window.y1], [box.top + box.height, box.top]);
  const classes = useMemo(
    () =>
      objects.filter(
        (o): o is PlotClass => o.kind === 'crossplot class' && o.x.of === desk.x.of && o.y.of === desk.y.of,
      ),
    [objects, desk.x.of, desk.y.of],
  );
  const color = CLASS_COLORS[classes.length % CLASS_COLORS.length];
  const of = desk.from === 'logs' ? '' : desk.x.of;
  const test =
    desk.from === 'volumes'
      ? {
          x: desk.x.of,
          y: desk.y.of,
          xLog: desk.x.log,
          yLog: desk.y.log,
          top: desk.top,
          base: desk.base,
          from: desk.fromVertical,
          to: desk.toVertical,
          limits: limits.map(({ of }, n) => ({ of, range: ranges[n] ?? [-Infinity, Infinity] })),
        }
      : null;

  // the selection follows the ring as it is drawn
  // biome-ignore lint/correctness/useExhaustiveDependencies: ring and limits alone decide
  useEffect(() => {
    let wanted = true;
    void lightUp(facts, ring, ranges, color, of, test).then((n) => wanted && setCount(n));
    return () => {
      wanted = false;
    };
  }, [ring, facts, ranges]);
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
      ...(limits.length > 0
        ? { limits: limits.map(({ of }, n) => ({ of, from: ranges[n][0], to: ranges[n][1] })) }
        : {}),
    });
    return edit(`Keep ${made.name}`, [], [made]).then(() => setRing([]));
  };
  const rings = useMemo(
    () =>
      classes.map((c) =>
        c.ring.map(([a, b]): [number, number] => [desk.x.log ? Math.log10(a) : a, desk.y.log ? Math.log10(b) : b]),
      ),
    [classes, desk.x.log, desk.y.log],
  );
  const inSeveral = useOverlap(facts, rings);
  const inPlot = (p: [number, number][]) =>
    p.map(([a, b], n) => `${n ? 'L' : 'M'}${x(a).toFixed(1)} ${y(b).toFixed(1)}`).join('');
  const logged = (v: number, log: boolean) => (log ? Math.log10(v) : v);
  const ticks = (scale: typeof x, log: boolean, unit: string, span: number) =>
    scale
      .ticks(Math.max(3, span / 80))
      .filter((t) => !log || Number.isInteger(t) || span > 500)
      .map((t) => ({ at: scale(t), text: String(Number(units.to(log ? 10 ** t : t, unit).toPrecision(4))) }));
  const { fit } = facts;
  const fitted =
    fit &&
    fitText(
      fit,
      { name: labels[0], unit: facts.unitX, log: desk.x.log },
      { name: labels[1], unit: facts.unitY, log: desk.y.log },
      units,
    );
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
            {marks.map((m, n) => (
              <circle
                key={n}
                cx={x(m.x)}
                cy={y(m.y)}
                r={n === 0 ? 5 : 2.2}
                className={n === 0 ? css.markHere : css.mark}
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
          <span className={`num ${css.fitText}`} title={`${fitted}; dashed: 95 of 100`}>
            {fitted}
          </span>
        )}
        {ring.length > 2 ? (
          <>
            <b>{count.toLocaleString('en').replace(/,/g, '\u202f')} points selected</b>
            <Button small onClick={() => void keep()}>
              Keep as a class
            </Button>
            <Button small onClick={() => setRing([])}>
              Let go
            </Button>
          </>
        ) : (
          <span>Draw round points: they light up in the other views.</span>
        )}
        {ring.length < 3 && classes.length > 0 && desk.from !== 'logs' && (
          <Button
            small
            title="Every sample or bin gets the class that it lies in"
            onClick={() => void applyClasses(desk.from === 'maps' ? 'maps' : 'volumes', classes)}
          >
            Give {desk.from === 'maps' ? 'bins' : 'samples'} their class
          </Button>
        )}
        {inSeveral > 0 && (
          <span title="Such points get the first of their classes, the last or none, as the step is told">
            {inSeveral.toLocaleString('en').replace(/,/g, '\u202f')} in several classes
          </span>
        )}
        {limits.map((limit, n) => (
          <LimitField
            key={limit.of}
            limit={limit}
            facts={facts.more[n]}
            onChange={(range) =>
              onLimits(limits.map(({ of, range: own }) => ({ of, range: of === limit.of ? range : own })))
            }
            onRemove={() => onLimits(limits.filter((l) => l.of !== limit.of).map(({ of, range }) => ({ of, range })))}
          />
        ))}
      </div>
    </>
  );
}
