import { rotationWeights, type TurnedPair } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { prepareNamed } from '../../actions/steps';
import { pebble } from '../../color/maps';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { useTurnedAngle, useTurning, volumesOfPair } from '../../state/turning';
import { Button } from '../../ui/Button';
import { Field, Range } from '../../ui/Field';
import sheet from '../../workbench/sheet/Sheet.module.css';
import css from './Turn.module.css';

const [W, H] = [262, 132];
const SIDE = 200;

/** Correlation with logs by angle, with the width of each best angle, the angle of least background and the one that is shown. */
function Curves({ pair, angle }: { pair: TurnedPair; angle: number }) {
  const x = scaleLinear([-90, 90], [30, W - 6]);
  const y = scaleLinear([-1, 1], [H - 20, 6]);
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width={W}
      height={H}
      role="img"
      aria-label="Correlation with logs by angle"
      className={sheet.small}
    >
      {[-1, 0, 1].map((v) => (
        <g key={v}>
          <line x1={30} x2={W - 6} y1={y(v)} y2={y(v)} stroke="var(--ash)" />
          <text x={26} y={y(v) + 4} textAnchor="end">
            {v}
          </text>
        </g>
      ))}
      {[-90, -45, 0, 45, 90].map((v) => (
        <text key={v} x={x(v)} y={H - 5} textAnchor={v === 90 ? 'end' : 'middle'}>
          {v}°
        </text>
      ))}
      {pair.curves.map((c, n) => (
        <g key={`${c.well} ${c.log}`}>
          <rect
            x={x(c.best.from)}
            width={Math.max(2, x(c.best.to) - x(c.best.from))}
            y={y(c.best.correlation) - 2}
            height={4}
            fill={pebble(n)}
            fillOpacity={0.35}
          />
          <path
            d={c.values.map((v, k) => `${k ? 'L' : 'M'}${x(k - 90).toFixed(1)} ${y(v).toFixed(1)}`).join('')}
            fill="none"
            stroke={pebble(n)}
            strokeWidth={1.5}
          >
            <title>{`${c.well} ${c.log}: best at ${c.best.angle}°`}</title>
          </path>
        </g>
      ))}
      <line
        x1={x(pair.background.angle)}
        x2={x(pair.background.angle)}
        y1={6}
        y2={H - 20}
        stroke="var(--slate)"
        strokeDasharray="3 3"
      />
      <line x1={x(angle)} x2={x(angle)} y1={6} y2={H - 20} stroke="var(--ink)" strokeWidth={1.5} />
    </svg>
  );
}

/** Intercept against gradient, with the trend of the background and the direction that is looked along. */
function Pairs({ pair, angle }: { pair: TurnedPair; angle: number }) {
  const [ra, rb] = pair.rms;
  const x = scaleLinear([-3.5 * ra, 3.5 * ra], [8, SIDE - 8]);
  const y = scaleLinear([-3.5 * rb, 3.5 * rb], [SIDE - 8, 8]);
  const dots = useMemo(
    () => pair.pairs.map(([a, b]) => `M${x(a).toFixed(1)} ${y(b).toFixed(1)}h0`).join(''),
    [pair, x, y],
  );
  const far = 3.5 * ra;
  const { slope } = pair.background;
  const [ca, cb] = rotationWeights(angle);
  const reach = 3 * Math.hypot(ca * ra, cb * rb);
  return (
    <svg
      viewBox={`0 0 ${SIDE} ${SIDE}`}
      width={SIDE}
      height={SIDE}
      role="img"
      aria-label="Intercept against gradient"
      className={`${sheet.small} ${css.pairs}`}
    >
      <rect x={8} y={8} width={SIDE - 16} height={SIDE - 16} fill="none" stroke="var(--ash)" />
      <line x1={8} x2={SIDE - 8} y1={y(0)} y2={y(0)} stroke="var(--ash)" />
      <line x1={x(0)} x2={x(0)} y1={8} y2={SIDE - 8} stroke="var(--ash)" />
      <clipPath id={`pairs-${pair.id}`}>
        <rect x={8} y={8} width={SIDE - 16} height={SIDE - 16} />
      </clipPath>
      <g clipPath={`url(#pairs-${pair.id})`}>
        <path d={dots} stroke="var(--slate)" strokeOpacity={0.45} strokeWidth={2} strokeLinecap="round" />
        <line
          x1={x(-far)}
          y1={y(-far * slope)}
          x2={x(far)}
          y2={y(far * slope)}
          stroke="var(--ochre)"
          strokeWidth={1.6}
        />
        <line x1={x(0)} y1={y(0)} x2={x(ca * reach)} y2={y(cb * reach)} stroke="var(--ink)" strokeWidth={2} />
      </g>
      <text x={SIDE - 12} y={y(0) - 4} textAnchor="end">
        intercept
      </text>
      <text x={x(0) + 5} y={18}>
        gradient
      </text>
    </svg>
  );
}

/** The angle of a turned pair: it is seen while it is dragged, and kept when it is let go. */
export function TurnSheet({ object }: { object: TurnedPair }) {
  const objects = useProject((s) => s.objects);
  const angle = useTurnedAngle(object);
  const volumes = volumesOfPair(object, objects);
  const keep = async (angleDeg: number) => {
    try {
      if (angleDeg !== object.angleDeg) await edit(`Angle of ${object.name}`, [object], [{ ...object, angleDeg }]);
    } finally {
      useTurning.setState({ draft: null });
    }
  };
  if (!volumes) return <p>What it is made of is not there any more.</p>;
  const least = Math.round(object.background.angle);
  return (
    <>
      <Field label="Angle" aside={`${angle}°`} help="0° is the intercept, 90° the gradient.">
        {() => (
          <Range
            label="Angle of the pair"
            value={angle}
            min={-90}
            max={90}
            step={1}
            onChange={(angleDeg) => useTurning.setState({ draft: { id: object.id, angleDeg } })}
            onCommit={(angleDeg) => void keep(angleDeg)}
          />
        )}
      </Field>
      <div className={css.offers}>
        <Button onClick={() => void keep(least)}>Least background, {least}°</Button>
        <Button
          main
          onClick={() =>
            prepareNamed(
              'invert.rotate',
              { intercept: [volumes[0].id], gradient: [volumes[1].id] },
              `${object.name} at ${angle}°`,
              {
                angleDeg: angle,
              },
            )
          }
        >
          Store this angle…
        </Button>
      </div>
      <h3>Correlation with logs</h3>
      {object.curves.length > 0 ? (
        <>
          <Curves pair={object} angle={angle} />
          <ul className={css.curves}>
            {object.curves.map((c, n) => (
              <li key={`${c.well} ${c.log}`}>
                <button type="button" onClick={() => void keep(c.best.angle)} title="Turn to it">
                  <i style={{ background: pebble(n) }} />
                  {c.well} {c.log}
                  <span className="num">
                    {c.best.correlation.toFixed(2)} at {c.best.angle}° ({c.best.from}° to {c.best.to}°)
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p>It was not held against logs: choose wells when it is made.</p>
      )}
      <h3>Intercept against gradient</h3>
      <Pairs pair={object} angle={angle} />
      <p className="num">
        background: slope {object.background.slope.toFixed(2)}, correlation {object.background.correlation.toFixed(2)}
      </p>
    </>
  );
}
