import {
  activeRelation,
  anglesOf,
  type BalanceRow,
  namedLikeStack,
  type Stack,
  stackSetOf,
  stepOf,
  type Volume,
  waveletsOf,
  withAngle,
} from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useEffect, useState } from 'react';
import { initialParams } from '../../actions/initial';
import { prepareNamed, runQuietly } from '../../actions/steps';
import { pebble } from '../../color/maps';
import { forViews, unwrap } from '../../compute/pool';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { select } from '../../state/selection';
import { Button } from '../../ui/Button';
import { Field } from '../../ui/Field';
import css from './Sheet.module.css';

const [W, H] = [262, 150];

/** Amplitude and time of stacks against the first of them, down the traces. */
function Balance({ rows }: { rows: BalanceRow[] }) {
  const angles = [...new Set(rows.map((r) => r.angle))];
  const times = rows.map((r) => r.ms);
  const y = scaleLinear([Math.min(...times), Math.max(...times)], [20, H - 22]);
  const rms = scaleLinear([0, Math.max(1.2, ...rows.map((r) => r.rms))], [40, 142]);
  const most = Math.max(2, ...rows.map((r) => Math.abs(r.shiftMs)));
  const shift = scaleLinear([-most, most], [156, W - 8]);
  const line = (angle: number, x: (r: BalanceRow) => number) =>
    rows
      .filter((r) => r.angle === angle && Number.isFinite(x(r)))
      .map((r, n) => `${n ? 'L' : 'M'}${x(r).toFixed(1)} ${y(r.ms).toFixed(1)}`)
      .join('');
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width={W}
      height={H}
      role="img"
      aria-label="Stacks against the first by time"
      className={css.small}
    >
      <text x={91} y={11} textAnchor="middle">
        rms, of the first
      </text>
      <text x={206} y={11} textAnchor="middle">
        shift, ms
      </text>
      {[rms(0), rms(1), shift(0)].map((x) => (
        <line key={x} x1={x} x2={x} y1={18} y2={H - 20} stroke="var(--ash)" />
      ))}
      {y.ticks(4).map((v) => (
        <text key={v} x={34} y={y(v) + 4} textAnchor="end">
          {v}
        </text>
      ))}
      {angles.map((a, n) => (
        <g key={a} fill="none" stroke={pebble(n)} strokeWidth={1.6}>
          <path d={line(a, (r) => rms(r.rms))} />
          <path d={line(a, (r) => shift(r.shiftMs))} />
        </g>
      ))}
      {[
        [rms(0), '0'],
        [rms(1), '1'],
        [shift(-most), `−${most.toFixed(0)}`],
        [shift(most), most.toFixed(0)],
      ].map(([x, text]) => (
        <text key={text} x={x} y={H - 6} textAnchor="middle">
          {text}
        </text>
      ))}
      <text x={4} y={H - 6}>
        ms
      </text>
    </svg>
  );
}

/** Angles that a volume stacks, and the set of stacks that it belongs to, with how they compare. */
export function StackSet({ object }: { object: Volume }) {
  const objects = useProject((s) => s.objects);
  const projectId = useProject((s) => s.id);
  const [rows, setRows] = useState<BalanceRow[] | null>(null);
  const angles = object.quantity === 'amplitude' && object.domain === 'twt' ? anglesOf(object) : null;
  const set = angles ? stackSetOf(object, objects) : [];
  const member = set.some((s) => s.volume.id === object.id);
  const key = member && set.length > 1 ? set.map((s) => `${s.volume.id}@${s.volume.revision}`).join() : '';
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the set
  useEffect(() => {
    setRows(null);
    if (!key) return;
    let left = false;
    forViews()
      .balance(
        projectId,
        set.map((s) => s.volume.id),
      )
      .then(
        (found) => !left && setRows(unwrap<BalanceRow[]>(found)),
        () => undefined,
      );
    return () => {
      left = true;
    };
  }, [key, projectId]);
  if (object.quantity !== 'amplitude' || object.domain !== 'twt' || (!angles && !namedLikeStack(object))) return null;
  const say = (middle: number) => void edit(`Angle of ${object.name}`, [object], [withAngle(object, middle)]);
  const ids = set.map((s) => s.volume.id);
  const tied = objects.flatMap((o) => (o.kind === 'well' && activeRelation(objects, o.name) ? [o.id] : []));
  const found = waveletsOf(
    set,
    objects.filter((o) => o.kind === 'wavelet'),
  );
  const lacking = set.filter((_, n) => !found[n]);
  const estimateFor = async (stacks: Stack[]) => {
    const step = stepOf('tie.estimate');
    if (!step) return;
    const params = initialParams(step, objects);
    for (const { volume, angle } of stacks)
      await runQuietly({
        step: step.id,
        inputs: { seismic: [volume.id], wells: tied },
        params: { ...params, angleDeg: angle },
        name: `Wavelet of ${volume.name}`,
      });
  };
  return (
    <>
      <h3>Angles of incidence</h3>
      <Field
        label="Middle angle"
        aside={
          angles
            ? angles.from === undefined
              ? angles.by
              : `${angles.from}° to ${angles.to}°, by its ${angles.by}`
            : 'not known'
        }
      >
        {(id) => (
          <input
            id={id}
            className={css.typed}
            type="number"
            min={0}
            max={80}
            key={angles?.middle ?? 'none'}
            defaultValue={angles?.middle}
            onBlur={(e) => {
              const v = e.target.valueAsNumber;
              if (v >= 0 && v <= 80 && v !== angles?.middle) say(v);
            }}
          />
        )}
      </Field>
      {member && set.length > 1 && (
        <>
          <h3>Stack set</h3>
          <dl className={css.facts}>
            {set.map((s, n) => (
              <div key={s.volume.id}>
                <dt>
                  <i
                    style={{ display: 'inline-block', width: 10, height: 10, borderRadius: 5, background: pebble(n) }}
                  />{' '}
                  {s.angle}°
                </dt>
                <dd>
                  <button type="button" className={css.link} onClick={() => select(s.volume.id)}>
                    {s.volume.name}
                  </button>
                  {found[n] && <span> · {found[n]?.name}</span>}
                </dd>
              </div>
            ))}
          </dl>
          {rows ? <Balance rows={rows} /> : <p className={css.note}>Comparing them …</p>}
          <div className={css.buttons}>
            <Button onClick={() => prepareNamed('invert.align', { stacks: ids })}>Align them…</Button>
            {tied.length > 0 && lacking.length > 0 && (
              <Button
                title="One for each stack at its own angle, by least squares from the tied wells"
                onClick={() => void estimateFor(lacking)}
              >
                Wavelets from the ties
              </Button>
            )}
            <Button onClick={() => prepareNamed('invert.interceptGradient', { stacks: ids })}>
              Intercept and gradient…
            </Button>
          </div>
        </>
      )}
    </>
  );
}
