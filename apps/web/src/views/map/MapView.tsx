import { toIndex } from '@lithagon/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { erase, keepArea } from '../../actions/draw';
import { useCursor } from '../../state/cursor';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { useRuns } from '../../state/runs';
import { offerFiles, useSelection } from '../../state/selection';
import { takeTool, useTool } from '../../state/tool';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Field';
import { chooseFiles } from '../../ui/files';
import { ColorBar } from '../common/ColorBar';
import { useSize } from '../common/hooks';
import { clampLine, notShownIn, onOneMap, shownVolume, shownWells } from '../common/survey';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import css from '../common/view.module.css';
import { withWell } from '../logs/wellLine';
import { farOff, fitAll, type MapFrame, toEarth, toScreen } from './frame';
import { useMapLayer } from './layer';
import { LitUp, WellLine } from './links';
import { MapOverlay } from './MapOverlay';
import { MapRaster } from './MapRaster';

/** Colours over the range of a map in the making. */
function rangeLook(values: Float32Array) {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const v of values) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  return { map: 'strata' as const, low, high, reverse: false };
}

/** The survey from above: wells, faults, outlines, and a horizon or a slice under them. A click moves the section there. */
export function MapView() {
  const all = useProject((s) => s.objects);
  const { together: objects, apart } = useMemo(() => onOneMap(all), [all]);
  const desk = useDesk();
  const domain = desk.domain.map ?? 'twt';
  const selected = useSelection((s) => s.object);
  const volume = shownVolume(objects, desk.volume, domain);
  const wells = useMemo(() => shownWells(objects), [objects]);
  const notShown = useMemo(
    () => [...apart, ...notShownIn(objects, domain, []), ...farOff(objects).map(({ name, why }) => ({ name, why }))],
    [objects, apart, domain],
  );
  const [ref, element, size] = useSize<HTMLDivElement>();
  const [kept, setKept] = useState<MapFrame | null>(null);
  const frame = kept ?? fitAll(objects, size);
  const drag = useRef<{ x: number; y: number; frame: MapFrame; moved: boolean } | null>(null);

  const { layer, problem, options, chosen, horizons, slice, k, at } = useMapLayer(objects, volume, domain);
  const tool = useTool((s) => s.tool);
  const ringTool = tool?.kind === 'erase' || tool?.kind === 'area' ? tool : null;
  const preview = useRuns((s) => s.preview);
  const previewLook = preview ? rangeLook(preview.values) : null;
  useEffect(() => {
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      if (slice && !event.ctrlKey) {
        const next = Math.max(0, Math.min(slice.vertical.count - 1, k + Math.sign(event.deltaY) * desk.increment));
        useDesk.setState((s) => ({ lines: { ...s.lines, slice: next } }));
        return;
      }
      if (!frame) return;
      const rect = element.getBoundingClientRect();
      const [px, py] = [event.clientX - rect.left, event.clientY - rect.top];
      const [x, y] = toEarth(frame, size, px, py);
      const f = Math.exp(Math.max(-60, Math.min(60, event.deltaY)) * 0.003);
      setKept({ x: x + (frame.x - x) * f, y: y + (frame.y - y) * f, perPixel: frame.perPixel * f });
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  });

  if (objects.length === 0)
    return (
      <ViewFrame view="map" title="Map" subtitle="" notShown={[]}>
        <EmptyView title="The map shows surveys, wells, faults and outlines.">
          <span>Drop SEG-Y, CSV or GeoJSON files anywhere, or choose them.</span>
          <Button onClick={() => void chooseFiles().then(offerFiles)}>Choose files…</Button>
        </EmptyView>
      </ViewFrame>
    );

  const earthAt = (event: React.PointerEvent | React.MouseEvent): [number, number] => {
    const rect = element?.getBoundingClientRect();
    return frame ? toEarth(frame, size, event.clientX - (rect?.left ?? 0), event.clientY - (rect?.top ?? 0)) : [0, 0];
  };
  const move = (event: React.PointerEvent) => {
    if (!frame) return;
    if (drag.current) {
      const { x, y, frame: from } = drag.current;
      const [dx, dy] = [event.clientX - x, event.clientY - y];
      if (Math.hypot(dx, dy) > 3) drag.current.moved = true;
      if (drag.current.moved) setKept({ ...from, x: from.x - dx * from.perPixel, y: from.y + dy * from.perPixel });
      return;
    }
    const [x, y] = earthAt(event);
    if (ringTool && ringTool.ring.length > 0) {
      const last = ringTool.ring[ringTool.ring.length - 1];
      if (Math.hypot(x - last[0], y - last[1]) > 4 * frame.perPixel)
        takeTool({ ...ringTool, ring: [...ringTool.ring, [x, y]] });
      return;
    }
    follow(x, y);
  };
  const follow = (x: number, y: number) => {
    let value: number | null = null;
    if (layer && !layer.plane?.coarse) {
      const [i, j] = toIndex(layer.binGrid, x, y).map(Math.round);
      const { inline, crossline } = layer.binGrid;
      if (i >= 0 && j >= 0 && i < inline.count && j < crossline.count) value = layer.values[i * crossline.count + j];
    }
    const known = value !== null && !Number.isNaN(value);
    useCursor.setState({
      at: {
        x,
        y,
        vertical: layer?.vertical === 'values' ? (known ? value : null) : (layer?.vertical ?? null),
        domain,
        value: known ? value : null,
        quantity: layer?.quantity ?? '',
        unit: layer?.unit ?? '',
        from: 'map',
      },
    });
  };
  const goThere = (event: React.MouseEvent) => {
    if (!volume) return;
    const [i, j] = toIndex(volume.binGrid, ...earthAt(event));
    useDesk.setState((s) => ({
      lines: {
        ...s.lines,
        inline: clampLine(volume.binGrid, 'inline', i),
        crossline: clampLine(volume.binGrid, 'crossline', j),
      },
    }));
  };

  /** A click near a well puts it at the end of the line of the Logs view, or with Shift in between, or takes it out. */
  const addWell = (event: React.MouseEvent) => {
    if (!frame) return;
    const [x, y] = earthAt(event);
    const near = wells
      .map((w) => ({ id: w.well.id, far: Math.min(...w.points.map(([a, b]) => Math.hypot(a - x, b - y))) }))
      .sort((a, b) => a.far - b.far)[0];
    if (!near || near.far > 16 * frame.perPixel) return;
    const { logs } = useDesk.getState();
    const line = () => {
      if (logs.wells.includes(near.id)) return logs.wells.filter((id) => id !== near.id);
      if (!event.shiftKey) return [...logs.wells, near.id];
      const all = wells.map((w) => w.well);
      return withWell(logs.wells, all, near.id);
    };
    useDesk.setState({ logs: { ...logs, wells: line() } });
  };
  const finishRing = () => {
    if (!ringTool) return;
    const { ring } = ringTool;
    if (ringTool.kind === 'area') {
      void keepArea(ringTool.name, ring);
      return takeTool(null);
    }
    const erased = horizons.find((h) => h.id === ringTool.horizon);
    takeTool({ ...ringTool, ring: [] });
    if (erased) void erase(erased, ring);
  };
  /** A ring by keys: arrows move the cursor, Enter sets a corner, Shift+Enter closes the ring. */
  const onKey = (event: React.KeyboardEvent) => {
    if (!ringTool || !frame) return;
    if (event.key === 'Escape') return takeTool(null);
    const at = useCursor.getState().at ?? { x: frame.x, y: frame.y };
    if (event.key === 'Enter') {
      event.preventDefault();
      return event.shiftKey ? finishRing() : takeTool({ ...ringTool, ring: [...ringTool.ring, [at.x, at.y]] });
    }
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (!by) return;
    event.preventDefault();
    const far = (event.shiftKey ? 40 : 8) * frame.perPixel;
    follow(at.x + by[0] * far, at.y + by[1] * far);
  };

  const ringPath = ringTool && frame ? ringTool.ring.map(([x, y]) => toScreen(frame, size, x, y)) : [];
  return (
    <ViewFrame
      view="map"
      title="Map"
      subtitle={<em>{at}</em>}
      summary={layer ? `${options.find((o) => o.value === chosen)?.label ?? ''}: ${layer.legend}` : 'Outlines'}
      notShown={notShown}
      tools={
        <div className={css.chooser}>
          <Select
            label="What the map shows"
            value={chosen}
            options={options}
            onChange={(v) => useDesk.setState({ mapShows: v || null })}
          />
        </div>
      }
    >
      <div
        ref={ref}
        role="img"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: rings are drawn by keys here
        tabIndex={0}
        onKeyDown={onKey}
        aria-label="Map"
        style={{ position: 'absolute', inset: 0, cursor: 'crosshair' }}
        onPointerMove={move}
        onPointerDown={(e) => {
          if (!frame) return;
          e.currentTarget.setPointerCapture(e.pointerId);
          if (ringTool) return takeTool({ ...ringTool, ring: [earthAt(e)] });
          drag.current = { x: e.clientX, y: e.clientY, frame, moved: false };
        }}
        onPointerUp={(e) => {
          if (ringTool && ringTool.ring.length > 0) return finishRing();
          if (drag.current && !drag.current.moved) {
            if (tool?.kind === 'wells') addWell(e);
            else goThere(e);
          }
          drag.current = null;
        }}
        onPointerLeave={() => useCursor.setState({ at: null })}
        onDoubleClick={() => setKept(null)}
      >
        {frame && layer && (
          <MapRaster
            values={layer.values}
            binGrid={layer.binGrid}
            look={layer.look}
            frame={frame}
            size={size}
            plane={layer.plane?.key}
          />
        )}
        {frame && preview && previewLook && (
          <MapRaster values={preview.values} binGrid={preview.binGrid} look={previewLook} frame={frame} size={size} />
        )}
        {frame && (
          <MapOverlay
            frame={frame}
            size={size}
            objects={objects}
            wells={wells}
            volume={volume}
            lines={desk.lines}
            plane={desk.plane}
            domain={domain}
            contours={
              layer?.interval ? { values: layer.values, binGrid: layer.binGrid, interval: layer.interval } : null
            }
            selected={selected}
          />
        )}
        {frame && <LitUp frame={frame} size={size} wells={wells} />}
        {frame && tool?.kind === 'wells' && <WellLine frame={frame} size={size} wells={wells} />}
        {ringPath.length > 1 && (
          <svg className={css.overlay} aria-hidden="true" style={{ pointerEvents: 'none' }}>
            <polygon
              points={ringPath.map((p) => p.join()).join(' ')}
              fill="#1f766d33"
              stroke="#1f766d"
              strokeWidth={1.5}
            />
          </svg>
        )}
        {layer && (
          <ColorBar
            unit={layer.unit}
            look={layer.look}
            style={{
              left: 40,
              top: 4,
              bottom: 'auto',
              padding: '2px 6px',
              background: 'color-mix(in oklab, var(--vellum) 86%, transparent)',
            }}
            text={layer.legend}
          />
        )}
        {problem && <div className={css.problem}>{problem}</div>}
      </div>
    </ViewFrame>
  );
}
