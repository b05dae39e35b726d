import { crosslineAt, inlineAt, pathOfLine, type SeismicLine, type Volume } from '@lithagon/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { LiveStep } from '../../compute/planes';
import { useCursor } from '../../state/cursor';
import { displayOf, useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { offerFiles, useSelection } from '../../state/selection';
import { takeTool, useTool } from '../../state/tool';
import { useUnits } from '../../state/units';
import { Button } from '../../ui/Button';
import { chooseFiles } from '../../ui/files';
import { Segmented } from '../../ui/Segmented';
import { stepLine } from '../../workbench/actions/lines';
import { finishStick, pickAt, unpickAt } from '../../workbench/draw/draw';
import { ColorBar, quantityText } from '../common/ColorBar';
import { type PlaneState, useArray, usePlane, useSize } from '../common/hooks';
import { lookOf } from '../common/look';
import { clampLine, notShownIn, type ShownWell, shownVolume, shownWells } from '../common/survey';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import css from '../common/view.module.css';
import { Raster, type Window } from '../raster/Raster';
import { placeOf, sectionLine, seismicLine, traceOf, valueAt } from './geometry';
import { LineChoice } from './LineChoice';
import { LitSamples } from './LitSamples';
import { liveLook, liveText } from './live';
import { Overlay } from './Overlay';

const MARGIN = { left: 48, top: 31, right: 9, bottom: 40 };

/** An inline or crossline of a volume, with what has been interpreted on it. */
export function SectionView() {
  const objects = useProject((s) => s.objects);
  const chosen = useDesk((s) => s.volume);
  const domain = useDesk((s) => s.domain.section ?? 'twt');
  const lineId = useDesk((s) => s.line);
  const flat = objects.find((o): o is SeismicLine => o.id === lineId && o.kind === 'seismic line');
  const volume = flat ?? shownVolume(objects, chosen, domain);
  const path = useMemo(() => (flat ? pathOfLine(objects, flat) : null), [objects, flat]);
  const wells = useMemo(() => shownWells(objects), [objects]);
  const notShown = useMemo(() => notShownIn(objects, domain, wells), [objects, domain, wells]);
  if (!volume)
    return (
      <ViewFrame view="section" title="Section" subtitle="" notShown={[]}>
        <EmptyView title="A section shows seismic along a line.">
          <span>Drop a SEG-Y file anywhere, or choose one.</span>
          <Button onClick={() => void chooseFiles().then(offerFiles)}>Choose files…</Button>
        </EmptyView>
      </ViewFrame>
    );
  if (volume.domain !== domain)
    return (
      <ViewFrame view="section" title="Section" subtitle={volume.name} notShown={notShown}>
        <EmptyView title={`${volume.name} is in ${volume.domain === 'twt' ? 'TWT' : 'depth'}.`}>
          <span>It can be shown in {domain === 'twt' ? 'TWT' : 'depth'} once a velocity model takes it there.</span>
        </EmptyView>
      </ViewFrame>
    );
  if (flat && !path)
    return (
      <ViewFrame view="section" title="Section" subtitle={flat.name} notShown={notShown}>
        <EmptyView title={`${flat.name} waits for its navigation.`}>
          <span>Its headers hold no coordinates. Load a table or P1/90 file that names line {flat.name}.</span>
        </EmptyView>
      </ViewFrame>
    );
  return <Section key={volume.id} shown={volume} path={path} wells={wells} notShown={notShown} domain={domain} />;
}

/** Samples of what a section shows: a plane of a volume, or a 2D line. */
function useSamples(
  shown: Volume | SeismicLine,
  plane: 'inline' | 'crossline',
  index: number,
  live: LiveStep | null,
): [PlaneState | null, string | null] {
  const volume = shown.kind === 'volume' ? shown : undefined;
  const line = shown.kind === 'seismic line' ? shown : undefined;
  const ofVolume = usePlane(volume, plane, index, live);
  const data = useArray(line?.id ?? '', line?.revision ?? '', line?.samples);
  const ofLine = useMemo<PlaneState | null>(
    () => (line && data ? { key: `${line.id}@${line.revision}/line`, data, index: 0 } : null),
    [line, data],
  );
  return line ? [ofLine, null] : ofVolume;
}

function Section(props: {
  shown: Volume | SeismicLine;
  /** Where the traces of a 2D line lie. */
  path: [number, number][] | null;
  wells: ShownWell[];
  notShown: { name: string; why: string }[];
  domain: 'twt' | 'depth';
}) {
  const { shown: volume, path, wells, domain } = props;
  const objects = useProject((s) => s.objects);
  const old = useProject((s) => s.old.has(volume.id));
  const plane = useDesk((s) => s.plane);
  const lines = useDesk((s) => s.lines);
  const increment = useDesk((s) => s.increment);
  const displays = useDesk((s) => s.display);
  const units = useUnits();
  const setup = useSelection((s) => s.setup);
  const live =
    setup?.live && volume.kind === 'volume' && Object.values(setup.inputs).flat().includes(volume.id)
      ? { step: setup.step, params: setup.params, inputs: setup.inputs }
      : null;
  const lattice = volume.kind === 'volume' ? volume.lattice : null;
  const index = lattice ? clampLine(lattice, plane, lines[plane]) : 0;
  const [data, problem] = useSamples(volume, plane, index, live);
  const [ref, element, size] = useSize<HTMLDivElement>();
  const [zoom, setZoom] = useState<Window | null>(null);
  const drag = useRef<{ x: number; y: number; window: Window } | null>(null);
  const space = useRef(false);

  const shown = data ? data.index : index;
  const line = useMemo(
    () => (volume.kind === 'volume' ? sectionLine(volume.lattice, plane, shown) : seismicLine(path ?? [], volume.cdps)),
    [volume, path, plane, shown],
  );
  const whole: Window = useMemo(() => {
    const { first, step, count } = volume.vertical;
    return { x0: 0, x1: line.traces - 1, y0: first, y1: first + step * (count - 1) };
  }, [volume, line.traces]);
  const window = zoom && zoom.x1 <= whole.x1 + 1e-6 ? zoom : whole;
  const box = {
    left: MARGIN.left,
    top: MARGIN.top,
    width: Math.max(10, size.width - MARGIN.left - MARGIN.right),
    height: Math.max(10, size.height - MARGIN.top - MARGIN.bottom),
  };
  const look = live
    ? liveLook(live.step, data?.data, lookOf(volume, displayOf(displays, volume)))
    : lookOf(volume, displayOf(displays, volume));
  const number = lattice ? (plane === 'inline' ? inlineAt(lattice, index) : crosslineAt(lattice, index)) : 0;
  const what = lattice ? `${plane} ${number}` : '2D line';
  const name = `${volume.name}${old ? ', out of date' : ''}`;

  const at = (clientX: number, clientY: number) => {
    const rect = element?.getBoundingClientRect();
    const px = clientX - (rect?.left ?? 0) - box.left;
    const py = clientY - (rect?.top ?? 0) - box.top;
    return {
      trace: window.x0 + (px / box.width) * (window.x1 - window.x0),
      vertical: window.y0 + (py / box.height) * (window.y1 - window.y0),
      inside: px >= 0 && py >= 0 && px <= box.width && py <= box.height,
    };
  };

  useEffect(() => {
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      if (!event.ctrlKey) {
        stepLine(event.deltaY > 0 || event.deltaX > 0 ? 1 : -1);
        return;
      }
      const p = at(event.clientX, event.clientY);
      const f = Math.exp(event.deltaY * 0.0025);
      const part = (lo: number, hi: number, c: number, min: number, max: number): [number, number] => [
        Math.max(min, c + (lo - c) * f),
        Math.min(max, c + (hi - c) * f),
      ];
      const [x0, x1] = part(window.x0, window.x1, p.trace, whole.x0, whole.x1);
      const [y0, y1] = part(window.y0, window.y1, p.vertical, whole.y0, whole.y1);
      if (x1 - x0 > 4 && y1 - y0 > 8 * volume.vertical.step) setZoom({ x0, x1, y0, y1 });
    };
    const key = (event: KeyboardEvent) => {
      if (event.code === 'Space') space.current = event.type === 'keydown';
    };
    element.addEventListener('wheel', wheel, { passive: false });
    addEventListener('keydown', key);
    addEventListener('keyup', key);
    return () => {
      element.removeEventListener('wheel', wheel);
      removeEventListener('keydown', key);
      removeEventListener('keyup', key);
    };
  });

  const tool = useTool((s) => s.tool);
  const drawing = (tool?.kind === 'pick' || tool?.kind === 'fault') && domain === 'twt' && !live;
  const act = (trace: number, vertical: number) => {
    if (!data || data.coarse || trace < 0 || trace > line.traces - 1) return;
    if (tool?.kind === 'pick') void pickAt(tool, line, volume, data.data, trace, vertical);
    if (tool?.kind === 'fault') takeTool({ ...tool, stick: [...tool.stick, [...placeOf(line, trace), vertical]] });
  };
  // a stick belongs to one line: going to another keeps it
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a change of line ends a stick
  useEffect(() => () => void finishStick(), [plane, index]);
  /** Arrows move the cursor where the view has the focus, Enter does what a click would. */
  const onKey = (event: React.KeyboardEvent) => {
    const at = useCursor.getState().at;
    if (event.key === 'Escape') return takeTool(null);
    if (event.key === 'Backspace' && tool?.kind === 'fault')
      return takeTool({ ...tool, stick: tool.stick.slice(0, -1) });
    if (event.key === 'Enter') {
      event.preventDefault();
      if (event.shiftKey || !at || at.vertical === null) return void finishStick();
      const [trace] = traceOf(line, at.x, at.y);
      return act(trace, at.vertical);
    }
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (!by) return;
    event.preventDefault();
    const far = event.shiftKey ? 10 : 1;
    const [from] = at ? traceOf(line, at.x, at.y) : [(window.x0 + window.x1) / 2];
    const trace = Math.max(0, Math.min(line.traces - 1, Math.round(from) + by[0] * far));
    const vertical = (at?.vertical ?? (window.y0 + window.y1) / 2) + by[1] * far * volume.vertical.step;
    follow(trace, vertical);
  };

  const move = (event: React.PointerEvent) => {
    if (drag.current) {
      const { x, y, window: w } = drag.current;
      const dx = ((event.clientX - x) / box.width) * (w.x1 - w.x0);
      const dy = ((event.clientY - y) / box.height) * (w.y1 - w.y0);
      const cx = Math.max(w.x1 - whole.x1, Math.min(w.x0 - whole.x0, dx));
      const cy = Math.max(w.y1 - whole.y1, Math.min(w.y0 - whole.y0, dy));
      setZoom({ x0: w.x0 - cx, x1: w.x1 - cx, y0: w.y0 - cy, y1: w.y1 - cy });
      return;
    }
    const p = at(event.clientX, event.clientY);
    if (!p.inside) return useCursor.setState({ at: null });
    follow(p.trace, p.vertical);
  };
  const follow = (trace: number, vertical: number) => {
    const [x, y] = placeOf(line, trace);
    useCursor.setState({
      at: {
        x,
        y,
        vertical,
        domain,
        value: data && !data.coarse ? valueAt(volume, data.data, trace, vertical) : null,
        quantity: live ? 'trial' : volume.quantity,
        unit: volume.unit,
        from: 'section',
      },
    });
  };

  const length = line.bends.slice(1).reduce((sum, end, n) => {
    const [a, b] = [line.place(line.bends[n]), line.place(end)];
    return sum + Math.hypot(b[0] - a[0], b[1] - a[1]);
  }, 0);
  const metres = length * ((window.x1 - window.x0) / Math.max(1, line.traces - 1));
  // a CSS pixel is 1/96 inch
  const scale = Math.round(metres / (box.width * 0.000264583) / 100) * 100;
  const perSecond = (box.height * 0.0264583) / ((window.y1 - window.y0) / 1000);

  return (
    <ViewFrame
      view="section"
      title="Section"
      // the tools beside it name the line of a volume
      subtitle={lattice ? name : `${name} · ${what}`}
      summary={`${name} · ${what}`}
      notShown={props.notShown}
      extent={{
        km: metres / 1000,
        vertical: (window.y1 - window.y0) / 1000,
        domain,
        margins: [MARGIN.left + MARGIN.right, MARGIN.top + MARGIN.bottom],
      }}
      tools={
        <>
          {live && <span className={css.live}>live</span>}
          <LineChoice />
          {lattice && (
            <>
              <Segmented
                label="Kind of line"
                value={plane}
                options={[
                  { value: 'inline', label: 'Inline' },
                  { value: 'crossline', label: 'Crossline' },
                ]}
                onChange={(value) => {
                  setZoom(null);
                  useDesk.setState({ plane: value });
                }}
              />
              <span className={css.stepper}>
                <button type="button" className={css.step} aria-label="Line before" onClick={() => stepLine(-1)}>
                  <ChevronLeft size={14} />
                </button>
                <LineNumber
                  number={number}
                  onGo={(wanted) => {
                    const axis = lattice[plane];
                    useDesk.setState({
                      lines: { ...lines, [plane]: clampLine(lattice, plane, (wanted - axis.first) / axis.step) },
                    });
                  }}
                />
                <button type="button" className={css.step} aria-label="Next line" onClick={() => stepLine(1)}>
                  <ChevronRight size={14} />
                </button>
              </span>
              <label title="Lines that the wheel and the arrows step by">
                by{' '}
                <input
                  className={css.line}
                  style={{ width: 34 }}
                  aria-label="Step by this many lines"
                  type="number"
                  min={1}
                  max={50}
                  value={increment}
                  onChange={(e) =>
                    useDesk.setState({ increment: Math.max(1, Math.min(50, Number(e.target.value) || 1)) })
                  }
                />
              </label>
            </>
          )}
        </>
      }
    >
      <div
        ref={ref}
        role="img"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the cursor is moved and picks are made by keys here
        tabIndex={0}
        onKeyDown={onKey}
        aria-label={`Section along ${lattice ? `${plane} ${number} of ` : ''}${volume.name}`}
        style={{ position: 'absolute', inset: 0, cursor: 'crosshair' }}
        onPointerMove={move}
        onPointerLeave={() => useCursor.setState({ at: null })}
        onPointerDown={(event) => {
          if (drawing && !space.current && event.button === 0) {
            const p = at(event.clientX, event.clientY);
            if (p.inside && event.detail < 2) act(p.trace, p.vertical);
            return;
          }
          if (!space.current && event.button !== 1) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          drag.current = { x: event.clientX, y: event.clientY, window };
        }}
        onPointerUp={() => {
          drag.current = null;
        }}
        onContextMenu={(event) => {
          if (!drawing) return;
          event.preventDefault();
          const p = at(event.clientX, event.clientY);
          if (tool?.kind === 'pick') void unpickAt(tool, line, p.trace, p.vertical);
          else void finishStick();
        }}
        onDoubleClick={(event) => {
          if (drawing) return void finishStick();
          if (!at(event.clientX, event.clientY).inside) setZoom(null);
        }}
      >
        {data && size.width > 60 && (
          <Raster
            name="section"
            plane={data}
            traces={line.traces}
            vertical={volume.vertical}
            look={look}
            window={window}
            box={box}
          />
        )}
        {volume.kind === 'volume' && size.width > 60 && (
          <LitSamples shown={volume} plane={plane} index={index} line={line} window={window} box={box} />
        )}
        {size.width > 60 && <Overlay frame={{ line, window, box, domain }} objects={objects} wells={wells} />}
        <ColorBar
          look={look}
          style={{ left: MARGIN.left }}
          unit={live ? '' : volume.unit}
          text={live ? liveText(live.step, volume) : quantityText(volume, units)}
        />
        <span
          className={`${css.colorBar} ${css.scale}`}
          data-testid="section-scale"
          style={{ right: MARGIN.right, bottom: 16 }}
        >
          1 : {scale.toLocaleString('en').replace(/,/g, '\u202f')}
          {domain === 'twt' ? ` · ${perSecond.toFixed(1)} cm/s` : ''}
        </span>
        {problem && <div className={css.problem}>{problem}</div>}
      </div>
    </ViewFrame>
  );
}

function LineNumber(props: { number: number; onGo(number: number): void }) {
  const [text, setText] = useState<string | null>(null);
  const go = () => {
    if (text !== null && text !== '' && Number.isFinite(Number(text))) props.onGo(Number(text));
    setText(null);
  };
  return (
    <input
      className={css.line}
      aria-label="Line number"
      inputMode="numeric"
      value={text ?? props.number}
      onFocus={(e) => e.target.select()}
      onChange={(e) => setText(e.target.value)}
      onBlur={go}
      onKeyDown={(e) => e.key === 'Enter' && go()}
    />
  );
}
