import { peaksOf, type Spectra, tuningThickness } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useMemo, useRef } from 'react';
import { pathText } from '../../picture/path';
import type { Band } from './bands';
import css from './Spectrum.module.css';

export interface ChartBox {
  left: number;
  right: number;
  width: number;
  height: number;
}

/** Lowest decibels that are drawn. */
const FLOOR = -40;
const TOP = 30;
const FOOT = 30;

/** Where the spectrum has fallen for good to a hundredth, and a little on: nothing is drawn beyond. */
export function endOf({ hz, data }: Spectra): number {
  const most = Math.max(...data);
  const last = data.findLastIndex((v) => v > 0.012 * most);
  return Math.min(hz[hz.length - 1], 1.12 * hz[Math.max(8, last)]);
}

/** Thicknesses that are written along the top, m: those that lie on the axis and far enough apart to be read. */
function thicknesses(velocity: number, last: number, x: (hz: number) => number): { metres: number; at: number }[] {
  const all = [200, 150, 100, 75, 50, 40, 30, 25, 20, 15, 12, 10, 8, 7, 6, 5, 4, 3, 2.5, 2];
  let before = Number.NEGATIVE_INFINITY;
  return all.flatMap((metres) => {
    const hz = velocity / (4 * metres);
    if (hz < 2 || hz > last || x(hz) - before < 34) return [];
    before = x(hz);
    return [{ metres, at: before }];
  });
}

/** Amplitude of data and noise over frequency, with the thickness of beds that are tuned; a band is dragged on it. */
export function Chart(props: {
  spectra: Spectra;
  box: ChartBox;
  last: number;
  velocity: number;
  decibels: boolean;
  band: Band | null;
  three: [number, number, number];
  /** @param held whether the pointer still holds it */
  onBand(band: Band | null, held?: boolean): void;
  onThree(three: [number, number, number]): void;
}) {
  const { spectra, box, last, velocity, decibels, band, three, onBand, onThree } = props;
  const drag = useRef<{ from: number; band: Band | null; what: 'new' | 'move' | 'from' | 'to' | number } | null>(null);
  const { left, right, width, height } = box;
  const x = scaleLinear([0, last], [left, width - right]);
  const most = useMemo(() => Math.max(...spectra.data), [spectra]);
  const level = (v: number) => (decibels ? Math.max(FLOOR, 20 * Math.log10(v / most + 1e-9)) : v / most);
  const y = scaleLinear(decibels ? [FLOOR, 0] : [0, 1], [height - FOOT, TOP]);
  const peaks = useMemo(() => peaksOf(spectra), [spectra]);
  const shown = spectra.hz.findLastIndex((f) => f <= last);
  const line = (of: number[]) =>
    pathText(of.slice(0, shown + 1).map((v, n): [number, number] => [x(spectra.hz[n]), y(level(v))]));
  const hasNoise = !Number.isNaN(spectra.noise[1]);
  const hzAt = (event: React.PointerEvent) => {
    const svg = (event.currentTarget as SVGElement).closest('svg') as SVGSVGElement;
    return Math.max(0.5, Math.min(last, x.invert(event.clientX - svg.getBoundingClientRect().left)));
  };
  const begin = (what: 'new' | 'move' | 'from' | 'to' | number) => (event: React.PointerEvent<SVGElement>) => {
    event.stopPropagation();
    // a drag over an axis selects no text
    event.preventDefault();
    (event.currentTarget as SVGElement).focus();
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { from: hzAt(event), band, what };
  };
  const move = (event: React.PointerEvent) => {
    const held = drag.current;
    if (!held) return;
    const hz = hzAt(event);
    if (typeof held.what === 'number')
      return onThree(three.map((f, n) => (n === held.what ? Math.round(2 * hz) / 2 : f)) as [number, number, number]);
    if (held.what === 'new') {
      if (Math.abs(hz - held.from) > 0.8) onBand([Math.min(hz, held.from), Math.max(hz, held.from)], true);
      return;
    }
    if (!held.band) return;
    const [a, b] = held.band;
    if (held.what === 'move') {
      const by = Math.max(0.5 - a, Math.min(last - b, hz - held.from));
      onBand([a + by, b + by], true);
    } else {
      const ends = held.what === 'from' ? [hz, b] : [a, hz];
      onBand([Math.min(...ends), Math.max(...ends)], true);
    }
  };
  const end = () => {
    if (drag.current && typeof drag.current.what !== 'number' && band) onBand(band);
    drag.current = null;
  };
  const key = (what: 'move' | 'from' | 'to') => (event: React.KeyboardEvent) => {
    const by = { ArrowLeft: -0.5, ArrowRight: 0.5 }[event.key];
    if (event.key === 'Escape') onBand(null);
    if (!by || !band) return;
    event.preventDefault();
    const [a, b] = [band[0] + (what === 'to' ? 0 : by), band[1] + (what === 'from' ? 0 : by)];
    if (a > 0 && b < last && b - a >= 1) onBand([a, b]);
  };
  const handles = { onPointerMove: move, onPointerUp: end };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing of which parts are dragged
    <svg
      className={css.chart}
      width={width}
      height={height}
      role="group"
      aria-label="Amplitude over frequency"
      data-testid="spectrum-chart"
      data-last={last}
      onPointerDown={begin('new')}
      onDoubleClick={() => onBand(null)}
      {...handles}
    >
      {y.ticks(decibels ? 5 : 4).map((t) => (
        <g key={t}>
          <path d={`M${left} ${y(t)}H${width - right}`} className={css.grid} />
          <text x={left - 5} y={y(t) + 4} textAnchor="end" className={css.number}>
            {decibels ? t : t.toFixed(1)}
          </text>
        </g>
      ))}
      <text transform={`translate(11 ${(TOP + height - FOOT) / 2}) rotate(-90)`} textAnchor="middle">
        {decibels ? 'amplitude (dB)' : 'amplitude, of the greatest'}
      </text>
      {x.ticks(Math.max(4, Math.round(width / 70))).map((f) => (
        <g key={f}>
          <path d={`M${x(f)} ${height - FOOT}v4`} className={css.tick} />
          <text x={x(f)} y={height - FOOT + 15} textAnchor="middle" className={css.number}>
            {f}
          </text>
        </g>
      ))}
      <text x={(left + width - right) / 2} y={height - 3} textAnchor="middle">
        frequency (Hz)
      </text>
      {thicknesses(velocity, last, x).map(({ metres, at }) => (
        <g key={metres}>
          <path d={`M${at} ${TOP}v-4`} className={css.tick} />
          <text x={at} y={TOP - 7} textAnchor="middle" className={css.number}>
            {metres}
          </text>
        </g>
      ))}
      <text x={width - right} y={10} textAnchor="end">
        thickness of tuned beds (m) at {velocity.toFixed(0)} m/s
      </text>
      <path
        d={`${line(spectra.data)}L${x(spectra.hz[shown])} ${height - FOOT}L${x(0)} ${height - FOOT}Z`}
        className={css.area}
      />
      <path d={line(spectra.data)} className={css.data} />
      {hasNoise && <path d={line(spectra.noise)} className={css.noise} />}
      {band && (
        <g>
          <rect
            x={x(band[0])}
            y={TOP}
            width={Math.max(1, x(band[1]) - x(band[0]))}
            height={height - FOOT - TOP}
            className={css.band}
            role="slider"
            tabIndex={0}
            aria-label="Band of frequencies"
            aria-valuemin={0}
            aria-valuemax={Math.round(last)}
            aria-valuenow={Math.round((band[0] + band[1]) / 2)}
            aria-valuetext={`${band[0].toFixed(1)} to ${band[1].toFixed(1)} Hz`}
            onPointerDown={begin('move')}
            onKeyDown={key('move')}
            {...handles}
          />
          {(['from', 'to'] as const).map((which, n) => (
            <rect
              key={which}
              x={x(band[n]) - 4}
              y={TOP}
              width={8}
              height={height - FOOT - TOP}
              className={css.edge}
              role="slider"
              tabIndex={0}
              aria-label={which === 'from' ? 'Band begins' : 'Band ends'}
              aria-valuemin={0}
              aria-valuemax={Math.round(last)}
              aria-valuenow={Math.round(band[n])}
              onPointerDown={begin(which)}
              onKeyDown={key(which)}
              {...handles}
            />
          ))}
        </g>
      )}
      {peaks.map((p) => (
        <g key={p.hz} data-peak={p.hz.toFixed(1)}>
          <path d={`M${x(p.hz)} ${y(level(p.amplitude)) - 3}l-3.5 -6h7Z`} className={css.peak}>
            <title>
              Peak at {p.hz.toFixed(1)} Hz: tuned are beds of {tuningThickness(p.hz, velocity).toFixed(0)} m
            </title>
          </path>
        </g>
      ))}
      {three.map((f, n) => (
        <g key={n} className={css.one} data-one={n + 1}>
          <path d={`M${x(f)} ${TOP}V${height - FOOT}`} />
          <circle
            cx={x(f)}
            cy={height - FOOT - 9}
            r={7.5}
            role="slider"
            tabIndex={0}
            aria-label={`Frequency ${n + 1} of the blend`}
            aria-valuemin={0}
            aria-valuemax={Math.round(last)}
            aria-valuenow={Math.round(f)}
            aria-valuetext={`${f} Hz`}
            onPointerDown={begin(n)}
            onKeyDown={(event) => {
              const by = { ArrowLeft: -0.5, ArrowRight: 0.5 }[event.key];
              if (!by) return;
              event.preventDefault();
              onThree(three.map((v, k) => (k === n ? v + by : v)) as [number, number, number]);
            }}
            {...handles}
          />
          <text x={x(f)} y={height - FOOT - 5} textAnchor="middle">
            {n + 1}
          </text>
        </g>
      ))}
      {!band && (
        <text x={width - right} y={TOP + 28} textAnchor="end">
          Drag a band: map or section show it
        </text>
      )}
      <g className={css.key} transform={`translate(${width - right - 114} ${TOP + 12})`}>
        <path d="M0 -4h18" className={css.data} />
        <text x={23}>data</text>
        {hasNoise && (
          <>
            <path d="M60 -4h18" className={css.noise} />
            <text x={83}>
              noise
              <title>What neighbouring traces do not share; noise that they share counts as data</title>
            </text>
          </>
        )}
      </g>
    </svg>
  );
}
