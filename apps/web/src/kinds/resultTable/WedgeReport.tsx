import { type InversionOperator, type ResultTable, type Wavelet, type WedgeParams, wedgeFor } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useMemo } from 'react';
import { useProject } from '../../state/project';
import { useUnits } from '../../state/units';
import css from '../../workbench/sheet/Sheet.module.css';

const [W, H] = [262, 150];
/** Traces that are drawn, and time about the middle, ms. */
const TRACES = 40;
const HALF_MS = 70;

/** A wedge as it was made: its traces, and amplitude and apparent thickness by true thickness. */
export function WedgeReport({ table }: { table: ResultTable }) {
  const units = useUnits();
  const objects = useProject((s) => s.objects);
  const wedge = useMemo(() => {
    const of = (role: string) => objects.find((o) => o.id === table.madeBy.inputs[role]?.[0]?.split('@')[0]);
    const given = {
      wavelet: of('wavelet') as Wavelet | undefined,
      operator: of('operator') as InversionOperator | undefined,
    };
    return given.wavelet || given.operator ? wedgeFor(given, table.madeBy.params as WedgeParams) : null;
  }, [table, objects]);
  if (!wedge) return null;
  const metres = table.rows.map((r) => units.to(Number(r[0]), 'm'));
  const x = scaleLinear([0, metres[metres.length - 1]], [36, W - 10]);
  const time = scaleLinear([-HALF_MS, HALF_MS], [8, H - 22]);
  const most = Math.max(...wedge.greatest) || 1;
  const every = Math.max(1, Math.ceil(wedge.traces.length / TRACES));
  const apart = ((W - 46) * every) / wedge.traces.length;
  const amplitude = scaleLinear([0, 1.1 * most], [H - 22, 8]);
  const seen = scaleLinear([0, Math.max(...wedge.apparentMs, ...wedge.thicknessMs)], [H - 22, 8]);
  const line = (values: number[], y: (v: number) => number) =>
    values.map((v, n) => `${n ? 'L' : 'M'}${x(metres[n]).toFixed(1)} ${y(v).toFixed(1)}`).join('');
  const axis = (
    <>
      {x.ticks(5).map((v) => (
        <text key={v} x={x(v)} y={H - 6} textAnchor="middle">
          {v}
        </text>
      ))}
      <text x={W - 2} y={H - 6} textAnchor="end">
        {units.of('m')}
      </text>
    </>
  );
  return (
    <>
      <h3>Wedge</h3>
      <svg viewBox={`0 0 ${W} ${H}`} width={W} height={H} role="img" aria-label="Wedge" className={css.small}>
        {wedge.traces.map((trace, n) => {
          if (n % every > 0) return null;
          const points: string[] = [];
          for (let ms = -HALF_MS; ms <= HALF_MS; ms += 2) {
            const v = trace[Math.round((ms - wedge.firstMs) / wedge.stepMs)] ?? 0;
            points.push(`${(x(metres[n]) + (0.9 * apart * v) / most).toFixed(1)} ${time(ms).toFixed(1)}`);
          }
          return <path key={n} d={`M${points.join('L')}`} fill="none" stroke="var(--slate)" strokeWidth={0.8} />;
        })}
        <path
          d={line(
            wedge.thicknessMs.map((t) => -t / 2),
            time,
          )}
          fill="none"
          stroke="var(--ochre)"
        />
        <path
          d={line(
            wedge.thicknessMs.map((t) => t / 2),
            time,
          )}
          fill="none"
          stroke="var(--ochre)"
        />
        {[-50, 0, 50].map((ms) => (
          <text key={ms} x={30} y={time(ms) + 4} textAnchor="end">
            {ms === 50 ? '50 ms' : ms}
          </text>
        ))}
        {axis}
      </svg>
      <h3>Greatest amplitude and apparent thickness</h3>
      <svg viewBox={`0 0 ${W} ${H}`} width={W} height={H} role="img" aria-label="Tuning" className={css.small}>
        <path d={line(wedge.greatest, amplitude)} fill="none" stroke="var(--ochre)" strokeWidth={1.8} />
        <path d={line(wedge.apparentMs, seen)} fill="none" stroke="var(--verdigris)" strokeWidth={1.8} />
        <path d={line(wedge.thicknessMs, seen)} fill="none" stroke="var(--slate)" strokeDasharray="4 3" />
        {seen.ticks(4).map((v) => (
          <text key={v} x={30} y={seen(v) + 4} textAnchor="end">
            {v}
          </text>
        ))}
        <text x={4} y={10}>
          ms
        </text>
        {axis}
      </svg>
      <ul className={css.keys}>
        <li>
          <i style={{ background: 'var(--ochre)' }} />
          amplitude, greatest {most.toPrecision(3)}
        </li>
        <li>
          <i style={{ background: 'var(--verdigris)' }} />
          apparent thickness
        </li>
        <li>
          <i style={{ background: 'var(--slate)' }} />
          true thickness
        </li>
      </ul>
    </>
  );
}
