import { type Blend, CHANNELS } from '@lithagon/core';
import { type CSSProperties, useEffect, useRef, useState } from 'react';
import { useBlends } from '../../state/blends';
import { useUnits } from '../../state/units';
import { Range } from '../../ui/Field';
import { formatValue } from '../common/look';
import css from './Blend.module.css';
import { cubeView, type InCube, inCube, onCube, paintCube } from './cube';
import { REACH } from './mixOf';
import { useChannels } from './useFields';

/** Pixels around the cube, for what its axes are called. */
const PAD = 11;
const WHOLE = 92;
const SMALL = 66;

/** Where each channel's axis ends in the picture, and what it is called there. */
const ENDS: { at: InCube; dx: number; dy: number; name: string }[] = [
  { at: [1, 0, 0], dx: -6, dy: 6, name: '1' },
  { at: [0, 1, 0], dx: 6, dy: 6, name: '2' },
  { at: [0, 0, 1], dx: 0, dy: -2, name: '3' },
];

/**
 * The colours of a blend as a cube: a click lights up where a colour lies in the views, and what the pointer is at there is
 * marked in the cube. Peeling it shows the darker colours inside.
 */
export function BlendLegend(props: {
  blend: Blend;
  /** Where in the cube the colour lies at the pointer, and at the place that sections run through. */
  at: InCube | null;
  here: InCube | null;
  /** Whether there is little room: the cube is small, and what its channels are is folded away. */
  small?: boolean;
  style?: CSSProperties;
}) {
  const { blend, at, here, small } = props;
  const side = small ? SMALL : WHOLE;
  const view = cubeView(side, side);
  const [told, setTold] = useState(false);
  const units = useUnits();
  const channels = useChannels(blend);
  const lit = useBlends((s) => (s.lit?.blend === blend.id ? s.lit : null));
  const [level, setLevel] = useState(1);
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (canvas.current) paintCube(canvas.current, side, side, blend.axes, level, devicePixelRatio);
  }, [side, blend.axes, level]);
  const light = (place: InCube | null) =>
    useBlends.setState({ lit: place && { blend: blend.id, at: place, reach: REACH } });
  const mark = (place: InCube, className: string) => {
    const [x, y] = onCube(place, view);
    return <circle cx={x + PAD} cy={y + PAD} r={4} className={className} />;
  };
  return (
    <div
      className={css.legend}
      data-small={small && !told ? '' : undefined}
      style={props.style}
      data-testid="blend-legend"
      onPointerDown={(event) => event.stopPropagation()}
      onDoubleClick={(event) => event.stopPropagation()}
    >
      <div className={css.cube} style={{ width: side + 2 * PAD, height: side + 2 * PAD }}>
        <canvas ref={canvas} style={{ left: PAD, top: PAD, width: side, height: side }} />
        <button
          type="button"
          aria-label="Colour cube: click a colour to light up where it lies"
          onClick={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            light(inCube(event.clientX - box.left - PAD, event.clientY - box.top - PAD, view, level));
          }}
          onKeyDown={(event) => {
            if (event.key === 'Escape') light(null);
            if (event.key !== 'Enter') return;
            event.preventDefault();
            light(at ?? here);
          }}
        />
        <svg width={side + 2 * PAD} height={side + 2 * PAD} aria-hidden="true">
          {ENDS.map(({ at: end, dx, dy, name }) => {
            const [x, y] = onCube(end, view);
            return (
              <text key={name} x={x + PAD + dx} y={y + PAD + dy} textAnchor="middle" className={css.axis}>
                {name}
              </text>
            );
          })}
          {here && mark(here, css.here)}
          {at && mark(at, css.at)}
          {lit && mark(lit.at, css.lit)}
        </svg>
      </div>
      {small && (
        <button type="button" className={css.more} aria-expanded={told} onClick={() => setTold(!told)}>
          {told ? 'Fold' : 'Channels'}
        </button>
      )}
      <ol className={css.channels} hidden={small && !told}>
        {channels.map((of, n) => {
          const ends = blend[CHANNELS[n]];
          const shown = (v: number) => formatValue(units.to(v, of.unit));
          return (
            <li key={CHANNELS[n]} value={n + 1} data-channel={CHANNELS[n]}>
              <span className={css.swatch} data-of={blend.axes === 'red, green, blue' ? CHANNELS[n] : `safe-${n}`} />
              <span className={css.of} title={of.name}>
                {n === 3 ? `shade: ${of.name}` : of.name}
              </span>
              {ends && (
                <span className="num">
                  {shown(ends.from)} – {shown(ends.to)} {units.of(of.unit)}
                </span>
              )}
            </li>
          );
        })}
      </ol>
      <div className={css.peel} hidden={small && !told && !lit}>
        <span>Peel</span>
        <Range
          label="Peel the cube"
          value={1 - level}
          min={0}
          max={0.9}
          step={0.05}
          onChange={(v) => setLevel(1 - v)}
        />
        {lit ? (
          <button type="button" onClick={() => light(null)}>
            Light all
          </button>
        ) : (
          (at ?? here) && (
            <button type="button" title="Where else this colour lies" onClick={() => light(here ?? at)}>
              Light this
            </button>
          )
        )}
      </div>
    </div>
  );
}
