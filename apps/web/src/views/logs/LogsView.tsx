import {
  columnOfTops,
  type Proposal,
  pathOf,
  pointAtMd,
  stepOf,
  stratigraphyOf,
  type Top,
  type Well,
} from '@lithagon/core';
import { ChevronLeft, ChevronRight, Printer, Star, X } from 'lucide-react';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useCursor } from '../../state/cursor';
import { useDesk } from '../../state/desk';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { select } from '../../state/selection';
import { takeTool } from '../../state/tool';
import { useUnits } from '../../state/units';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Field';
import { openView } from '../../workbench/dock';
import { download } from '../../workbench/download';
import { initialParams } from '../../workbench/steps';
import { deleteTop, paint as paintFacies, setTop } from '../../workbench/tops';
import { useSize } from '../common/hooks';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import { CarryPanel } from './CarryPanel';
import { changeLogs } from './changeLogs';
import { useColumns } from './columns';
import { headingFacts } from './heading';
import css from './Logs.module.css';
import {
  axisMarks,
  HEAD,
  headMarks,
  layOut,
  topMarks,
  type WellBox,
  wellMarks,
  wholeWindow,
  zoneMarks,
} from './layout';
import { faciesColor, type Mark } from './marks';
import { Ghost, LitUp, Stroke, TopLine } from './Overlays';
import { paint } from './paint';
import { printPanel } from './print';
import { SeismicBetween } from './SeismicBetween';
import { TopStrip } from './TopStrip';
import { TracksSheet } from './TracksSheet';
import type { DepthKind } from './template';
import { useCarry } from './useCarry';

const DEPTHS: DepthKind[] = ['MD', 'TVD', 'TVDSS', 'TWT'];
/** Scales that are drawn by, 1 : n. */
const SCALES = [100, 200, 500, 1000, 2000, 5000, 10000];
/** A CSS pixel on paper, metres. */
const PIXEL_M = 0.0254 / 96;

/** The round scale that a panel is printed at: the one nearest to how it stands. */
const nearestScale = (scale: number) =>
  SCALES.reduce((a, b) => (Math.abs(Math.log(b / scale)) < Math.abs(Math.log(a / scale)) ? b : a));

type Mode = 'look' | 'pick' | 'paint';

/** Wells side by side: tracks on one scale of depth, with tops, zones and facies that are worked on by hand. */
export function LogsView() {
  const objects = useProject((s) => s.objects);
  const desk = useDesk((s) => s.logs);
  const wells = useMemo(() => objects.filter((o): o is Well => o.kind === 'well'), [objects]);
  const shown = useMemo(() => desk.wells.filter((id) => wells.some((w) => w.id === id)), [desk.wells, wells]);
  if (wells.length === 0)
    return (
      <ViewFrame view="logs" title="Logs" subtitle="" notShown={[]} fixed="depth">
        <EmptyView title="Logs stand side by side here, well by well.">
          <span>Load well heads and LAS files first: drop them anywhere.</span>
        </EmptyView>
      </ViewFrame>
    );
  if (shown.length === 0)
    return (
      <ViewFrame view="logs" title="Logs" subtitle="" notShown={[]} fixed="depth">
        <EmptyView title="Choose the wells that stand side by side.">
          <span>Click them on the map in the order of the line, or take all from west to east.</span>
          <Button
            onClick={() => {
              takeTool({ kind: 'wells' });
              openView('map');
            }}
          >
            Choose on the map
          </Button>
          <Button onClick={() => changeLogs({ wells: [...wells].sort((a, b) => a.x - b.x).map((w) => w.id) })}>
            Take all, west to east
          </Button>
        </EmptyView>
      </ViewFrame>
    );
  return <Panels ids={shown} wells={wells} />;
}

function Panels({ ids, wells }: { ids: string[]; wells: Well[] }) {
  const objects = useProject((s) => s.objects);
  const desk = useDesk((s) => s.logs);
  const theme = useDesk((s) => s.theme);
  const units = useUnits();
  const wanted = useMemo(() => [...new Set(desk.tracks.flatMap((t) => t.curves))], [desk.tracks]);
  const columns = useColumns(ids, wanted, desk.depth);
  const stratigraphy = useMemo(() => stratigraphyOf(objects), [objects]);
  const [ref, element, size] = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [scroll, setScroll] = useState(0);
  const [mode, setMode] = useState<Mode>('look');
  const [topName, setTopName] = useState('');
  const [facies, setFacies] = useState('');
  const [chosen, setChosen] = useState<{ well: string; name: string; md: number } | null>(null);
  const [drag, setDrag] = useState<{ well: string; top: Top; md: number; proposal?: Proposal } | null>(null);
  const [stroke, setStroke] = useState<{ well: string; from: number; to: number } | null>(null);
  const [trusted, setTrusted] = useState<string[]>([]);
  const [tracksOpen, setTracksOpen] = useState(false);
  const carry = useCarry();

  const whole = useMemo(() => wholeWindow(columns, desk.hang), [columns, desk.hang]);
  const window = desk.window ?? whole;
  const spacing = useMemo(
    () =>
      columns
        .slice(0, -1)
        .map((c, n) => Math.hypot(columns[n + 1].well.x - c.well.x, columns[n + 1].well.y - c.well.y)),
    [columns],
  );
  const panel = useMemo(
    () => layOut(columns, desk, size, window, spacing, scroll),
    [columns, desk, size, window, spacing, scroll],
  );
  const faciesNames = useMemo(
    () => [...new Set(objects.flatMap((o) => (o.kind === 'facies' ? o.rows.map((r) => String(r[2])) : [])))].sort(),
    [objects],
  );
  const topNames = useMemo(() => [...new Set(columns.flatMap((c) => c.tops.map((t) => t.name)))], [columns]);
  const inTime = desk.depth === 'TWT';
  const shownUnit = inTime ? 'ms' : units.of('m');
  const unitOf = (v: number) => (inTime ? v : units.to(v, 'm'));

  // drawn in one go: what is behind, tracks, what is in front
  // biome-ignore lint/correctness/useExhaustiveDependencies: the theme's colours are read off the page; units stand for their function
  useLayoutEffect(() => {
    const target = canvas.current;
    const context = target?.getContext('2d');
    if (!target || !context || size.width < 20) return;
    const started = performance.now();
    const ratio = devicePixelRatio;
    [target.width, target.height] = [Math.round(size.width * ratio), Math.round(size.height * ratio)];
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    const style = getComputedStyle(target);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    const ink = { text: colour('--ink'), soft: colour('--slate'), fault: colour('--cinnabar') };
    context.clearRect(0, 0, size.width, size.height);
    const clip = { left: 0, top: HEAD, width: size.width, height: panel.height };
    if (desk.zones) paint(context, zoneMarks(panel, stratigraphy), clip);
    for (const well of panel.wells) {
      if (well.left > size.width || well.left + well.width < 0) continue;
      for (const { box, marks } of wellMarks(well, desk, faciesNames)) {
        paint(context, [
          { kind: 'rect', x: box.left, y: box.top, width: box.width, height: box.height, color: '#fdfbf6' },
        ]);
        paint(context, marks, box);
        context.strokeStyle = colour('--ash');
        context.strokeRect(box.left - 0.5, box.top - 0.5, box.width + 1, box.height + 1);
      }
      const facts = headingFacts(well.column, objects, (m, u) => units.text(m, u, 0));
      paint(context, headMarks(well, desk, desk.heading.map((h) => facts[h] ?? '').filter(Boolean), units, ink));
      paint(context, axisMarks(well, panel, unitOf, ink.soft), clip);
      paint(context, checkshotMarks(well, ink.soft), clip);
      if (well.hangs) paint(context, topMarks(well, { text: '#22262a', fault: '#b3322b' }), clip);
    }
    target.dataset.drawMs = (performance.now() - started).toFixed(1);
  }, [panel, size, stratigraphy, desk, objects, faciesNames, units, theme]);

  const at = (event: { clientX: number; clientY: number }) => {
    const rect = element?.getBoundingClientRect();
    const [x, y] = [event.clientX - (rect?.left ?? 0), event.clientY - (rect?.top ?? 0)];
    const well = panel.wells.find((w) => x >= w.left && x <= w.left + w.width);
    const axis = window[0] + ((y - HEAD) / panel.height) * (window[1] - window[0]);
    return { x, y, well, axis, md: well ? well.column.mdAt(axis - well.hung) : Number.NaN };
  };

  useEffect(() => {
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const [a, b] = window;
      if (event.ctrlKey) {
        const { axis } = at(event);
        const f = Math.exp(Math.max(-80, Math.min(80, event.deltaY)) * 0.004);
        const next: [number, number] = [axis + (a - axis) * f, axis + (b - axis) * f];
        if (next[1] - next[0] > 2) changeLogs({ window: next });
        return;
      }
      if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
        const most = Math.max(0, panel.width - size.width + 10);
        setScroll((s) => Math.max(0, Math.min(most, s + event.deltaX + (event.shiftKey ? event.deltaY : 0))));
        return;
      }
      const by = (event.deltaY / panel.height) * (b - a);
      changeLogs({ window: [a + by, b + by] });
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  });

  const follow = (event: React.PointerEvent) => {
    const { well, md } = at(event);
    if (!well || Number.isNaN(md)) return useCursor.setState({ at: null });
    const p = pointAtMd(pathOf(objects, well.column.well), md);
    const [key] = [...well.column.curves.keys()];
    const curve = key ? well.column.curves.get(key) : undefined;
    const value = curve ? curve.values[Math.round((md - curve.firstM) / curve.stepM)] : undefined;
    useCursor.setState({
      at: {
        x: p.x,
        y: p.y,
        vertical: p.tvdss,
        domain: 'depth',
        value: value === undefined || Number.isNaN(value) ? null : value,
        quantity: key ?? '',
        unit: curve?.unit ?? '',
        from: 'logs',
      },
    });
  };

  const move = (event: React.PointerEvent) => {
    const here = at(event);
    if (drag) {
      const well = panel.wells.find((w) => w.column.well.name === drag.well);
      if (well) setDrag({ ...drag, md: well.column.mdAt(here.axis - well.hung) });
      return;
    }
    if (stroke) {
      const well = panel.wells.find((w) => w.column.well.name === stroke.well);
      if (well) setStroke({ ...stroke, to: well.column.mdAt(here.axis - well.hung) });
      return;
    }
    follow(event);
  };
  const up = () => {
    if (drag) {
      if (drag.proposal) carry.nudge(drag.proposal, drag.md);
      else if (Math.abs(drag.md - drag.top.md) > 0.01)
        void setTop(drag.well, { ...drag.top, md: drag.md }, drag.top).then(
          (done) => done && setChosen({ well: drag.well, name: drag.top.name, md: drag.md }),
        );
      setDrag(null);
    }
    if (stroke) {
      if (Math.abs(stroke.to - stroke.from) > 0.1)
        void paintFacies(stroke.well, stroke.from, stroke.to, facies || null);
      setStroke(null);
    }
  };
  const down = (event: React.PointerEvent) => {
    const { well, y, md } = at(event);
    if (!well || y < HEAD || event.button !== 0) return;
    if (mode === 'pick' && topName) {
      void setTop(well.column.well.name, {
        name: topName,
        md,
        confidence: null,
        kind: 'top',
        missingM: null,
        how: 'picked',
      }).then((done) => done && setChosen({ well: well.column.well.name, name: topName, md }));
      return;
    }
    if (mode === 'paint') {
      event.currentTarget.setPointerCapture(event.pointerId);
      setStroke({ well: well.column.well.name, from: md, to: md });
      return;
    }
    setChosen(null);
  };
  const chosenTop = chosen
    ? columns
        .find((c) => c.well.name === chosen.well)
        ?.tops.find((t) => t.name === chosen.name && Math.abs(t.md - chosen.md) < 0.02)
    : undefined;
  const onKey = (event: React.KeyboardEvent) => {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (chosen && chosenTop && (event.key === 'Delete' || event.key === 'Backspace')) {
      event.preventDefault();
      void deleteTop(chosen.well, chosenTop);
      return setChosen(null);
    }
    if (!by) return;
    event.preventDefault();
    if (chosen && chosenTop) {
      const md = chosenTop.md + by * (event.shiftKey ? 5 : 0.5);
      void setTop(chosen.well, { ...chosenTop, md }, chosenTop).then((done) => done && setChosen({ ...chosen, md }));
      return;
    }
    const [a, b] = window;
    changeLogs({ window: [a + by * 0.1 * (b - a), b + by * 0.1 * (b - a)] });
  };

  const perPixel = (window[1] - window[0]) / panel.height;
  const scale = perPixel / PIXEL_M;
  const setScale = (n: number) => {
    const half = (n * PIXEL_M * panel.height) / 2;
    const middle = (window[0] + window[1]) / 2;
    changeLogs({ window: [middle - half, middle + half] });
  };
  const notHung = panel.wells
    .filter((w) => !w.hangs)
    .map((w) => ({ name: w.column.well.name, why: `has no ${desk.hang} to hang on${inTime ? ', or no times' : ''}` }));
  const noTime = inTime
    ? columns
        .filter((c) => Number.isNaN(c.axisAt(c.last * 0.8)))
        .map((c) => ({ name: c.well.name, why: 'has neither a tie nor checkshots, so its depths have no times' }))
    : [];
  const swap = (n: number, by: number) => {
    const next = [...ids];
    [next[n], next[n + by]] = [next[n + by], next[n]];
    changeLogs({ wells: next });
  };
  const startCarry = () => {
    const step = stepOf('wells.carry');
    if (!step) return;
    const stars =
      trusted.length > 0
        ? trusted
        : ids.filter((id) => columns.some((c) => c.well.id === id && c.tops.length > 0)).slice(0, 1);
    setTrusted(stars);
    void carry.propose(
      stars,
      ids.filter((id) => !stars.includes(id)),
      initialParams(step),
    );
  };

  return (
    <ViewFrame
      view="logs"
      title="Logs"
      subtitle={
        <>
          <em>{columns.map((c) => c.well.name).join(' – ')}</em> · {desk.depth} ({shownUnit})
          {desk.hang ? `, hung on ${desk.hang}` : ''}
        </>
      }
      summary={`${columns.map((c) => c.well.name).join(' – ')}, ${desk.depth}`}
      notShown={[...notHung, ...noTime]}
      fixed="depth"
      tools={
        <button
          type="button"
          className={css.tool}
          onClick={() =>
            download(
              'logs.svg',
              printPanel(
                columns,
                desk,
                stratigraphy,
                objects,
                units,
                faciesNames,
                window,
                spacing,
                nearestScale(scale),
              ),
            )
          }
          title="An SVG on paper at this scale"
        >
          <Printer size={12} aria-hidden="true" /> Print to scale
        </button>
      }
    >
      <div className={css.whole}>
        <div className={css.strip} role="toolbar" aria-label="Logs">
          <Select
            label="Depth"
            value={desk.depth}
            options={DEPTHS.map((d) => ({ value: d, label: d }))}
            onChange={(v) => changeLogs({ depth: v as DepthKind, window: null })}
          />
          <span className={css.chooser}>
            <Select
              label="Hang on"
              value={desk.hang ?? ''}
              options={[
                { value: '', label: 'true elevation' },
                ...topNames.map((t) => ({ value: t, label: `hung on ${t}` })),
              ]}
              onChange={(v) => changeLogs({ hang: v || null, window: null })}
            />
          </span>
          {!inTime && (
            <Select
              label="Scale"
              value={String(SCALES.find((s) => Math.abs(s / scale - 1) < 0.02) ?? '')}
              options={[
                { value: '', label: `1 : ${Math.round(scale)}` },
                ...SCALES.map((s) => ({ value: String(s), label: `1 : ${s}` })),
              ]}
              onChange={(v) => v && setScale(Number(v))}
            />
          )}
          <button type="button" className={css.tool} onClick={() => changeLogs({ window: null })}>
            Fit
          </button>
          <button
            type="button"
            className={css.tool}
            aria-pressed={desk.spaced}
            onClick={() => changeLogs({ spaced: !desk.spaced })}
          >
            True spacing
          </button>
          <button
            type="button"
            className={css.tool}
            aria-pressed={desk.zones}
            onClick={() => changeLogs({ zones: !desk.zones })}
          >
            Zones
          </button>
          <button type="button" className={css.tool} onClick={() => setTracksOpen(true)}>
            Tracks…
          </button>
          <button
            type="button"
            className={css.tool}
            aria-pressed={mode === 'pick'}
            onClick={() => {
              setMode(mode === 'pick' ? 'look' : 'pick');
              setTopName(topName || topNames[0] || 'New top');
            }}
          >
            Pick tops
          </button>
          {mode === 'pick' && (
            <>
              <input
                value={topName}
                aria-label="Top to pick"
                list="top-names"
                onChange={(e) => setTopName(e.target.value)}
              />
              <datalist id="top-names">
                {topNames.map((t) => (
                  <option key={t} value={t} />
                ))}
              </datalist>
            </>
          )}
          <button
            type="button"
            className={css.tool}
            onClick={startCarry}
            title="Propose the tops of trusted wells (starred) in the others"
          >
            Carry tops
          </button>
          <button
            type="button"
            className={css.tool}
            aria-pressed={mode === 'paint'}
            onClick={() => {
              setMode(mode === 'paint' ? 'look' : 'paint');
              setFacies(facies || faciesNames[0] || 'Sand');
            }}
          >
            Paint facies
          </button>
          {mode === 'paint' && (
            <>
              <i className={css.swatch} style={{ background: faciesColor(facies, faciesNames) }} />
              <input
                value={facies}
                aria-label="Facies to paint"
                list="facies-names"
                onChange={(e) => setFacies(e.target.value)}
                placeholder="empty erases"
              />
              <datalist id="facies-names">
                {faciesNames.map((t) => (
                  <option key={t} value={t} />
                ))}
              </datalist>
            </>
          )}
          {!stratigraphy && topNames.length > 0 && (
            <button
              type="button"
              className={css.tool}
              onClick={() => {
                const column = columnOfTops(objects);
                void edit('Make the stratigraphic column', [], [column]).then(() => select(column.id));
              }}
            >
              Order the rocks
            </button>
          )}
          {inTime && (
            <Select
              label="Seismic between wells"
              value={desk.seismic ?? ''}
              options={[
                { value: '', label: 'no seismic' },
                ...objects.flatMap((o) =>
                  o.kind === 'volume' && o.domain === 'twt' && o.quantity === 'amplitude'
                    ? [{ value: o.id, label: o.name }]
                    : [],
                ),
              ]}
              onChange={(v) => changeLogs({ seismic: v || null })}
            />
          )}
          <span className={css.chooser}>
            <Select
              label="Add a well"
              value=""
              options={[
                { value: '', label: 'add a well' },
                ...wells.filter((w) => !ids.includes(w.id)).map((w) => ({ value: w.id, label: w.name })),
              ]}
              onChange={(v) => v && changeLogs({ wells: [...ids, v] })}
            />
          </span>
          <button
            type="button"
            className={css.tool}
            onClick={() => {
              changeLogs({ wells: [] });
              takeTool({ kind: 'wells' });
              openView('map');
            }}
          >
            On the map
          </button>
        </div>
        <div
          ref={ref}
          className={css.panel}
          role="application"
          aria-label="Logs of wells side by side"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: tops are moved and the panel is scrolled by keys here
          tabIndex={0}
          style={{ cursor: mode === 'look' ? 'default' : 'crosshair' }}
          onKeyDown={onKey}
          onPointerMove={move}
          onPointerDown={down}
          onPointerUp={up}
          onPointerLeave={() => useCursor.setState({ at: null })}
        >
          {inTime && desk.seismic && <SeismicBetween panel={panel} volume={desk.seismic} window={window} />}
          <canvas
            ref={canvas}
            data-testid="logs-canvas"
            style={{ width: size.width, height: size.height, pointerEvents: 'none' }}
          />
          <svg
            width={size.width}
            height={size.height}
            style={{ pointerEvents: 'none' }}
            className={css.tops}
            aria-hidden="true"
          >
            {panel.wells.flatMap((well) =>
              well.hangs
                ? well.column.tops.map((top) => (
                    <TopLine
                      key={`${well.column.well.id} ${top.name} ${top.md}`}
                      well={well}
                      top={top}
                      panel={panel}
                      chosen={chosen?.well === well.column.well.name && chosenTop === top}
                      onDown={(e) => {
                        if (mode === 'paint') return;
                        e.stopPropagation();
                        element?.setPointerCapture(e.pointerId);
                        setChosen({ well: well.column.well.name, name: top.name, md: top.md });
                        setDrag({ well: well.column.well.name, top, md: top.md });
                      }}
                    />
                  ))
                : [],
            )}
            {carry.state?.proposals.map((p) => {
              const well = panel.wells.find((w) => w.column.well.name === p.well);
              if (!well?.hangs) return null;
              const y = well.y(drag?.proposal === p ? drag.md : p.md);
              return (
                <g key={`${p.well} ${p.name}`} className={css.proposal}>
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
                    onPointerDown={(e) => {
                      e.stopPropagation();
                      element?.setPointerCapture(e.pointerId);
                      setDrag({
                        well: p.well,
                        top: { name: p.name, md: p.md, confidence: null, kind: 'top', missingM: null, how: '' },
                        md: p.md,
                        proposal: p,
                      });
                    }}
                  />
                </g>
              );
            })}
            <LitUp panel={panel} />
            {drag && <Ghost drag={drag} panel={panel} desk={desk} />}
            {stroke && <Stroke stroke={stroke} panel={panel} color={faciesColor(facies, faciesNames)} />}
          </svg>
          {panel.wells.map((well, n) => (
            <div key={well.column.well.id} className={css.headTools} style={{ left: well.left + well.width - 82 }}>
              <button
                type="button"
                aria-label={`Trust the tops of ${well.column.well.name}`}
                title="Trusted: its tops are carried to the others"
                aria-pressed={trusted.includes(well.column.well.id)}
                onClick={() =>
                  setTrusted((t) =>
                    t.includes(well.column.well.id)
                      ? t.filter((id) => id !== well.column.well.id)
                      : [...t, well.column.well.id],
                  )
                }
              >
                <Star size={13} fill={trusted.includes(well.column.well.id) ? 'currentColor' : 'none'} />
              </button>
              <button
                type="button"
                aria-label={`Move ${well.column.well.name} left`}
                disabled={n === 0}
                onClick={() => swap(n, -1)}
              >
                <ChevronLeft size={14} />
              </button>
              <button
                type="button"
                aria-label={`Move ${well.column.well.name} right`}
                disabled={n === panel.wells.length - 1}
                onClick={() => swap(n, 1)}
              >
                <ChevronRight size={14} />
              </button>
              <button
                type="button"
                aria-label={`Take ${well.column.well.name} out`}
                onClick={() => changeLogs({ wells: ids.filter((id) => id !== well.column.well.id) })}
              >
                <X size={13} />
              </button>
            </div>
          ))}
        </div>
        {chosen && chosenTop && <TopStrip well={chosen.well} top={chosenTop} onDone={() => setChosen(null)} />}
        {carry.state && (
          <CarryPanel
            state={carry.state}
            onAccept={(some) => void carry.accept(some)}
            onRefuse={carry.refuse}
            onClose={carry.close}
          />
        )}
      </div>
      <TracksSheet open={tracksOpen} onClose={() => setTracksOpen(false)} columns={columns} />
    </ViewFrame>
  );
}

/** Where checkshots stand along the axis. */
function checkshotMarks(well: WellBox, color: string): Mark[] {
  return well.column.checkshots.map(
    (md): Mark => ({ kind: 'dot', x: well.axis.left + well.axis.width - 2, y: well.y(md), r: 1.6, color }),
  );
}
