import type { Tie } from '@lithagon/core';
import css from './Tie.module.css';

const signed = (v: number, places = 1) => `${v < 0 ? '−' : '+'}${Math.abs(v).toFixed(places)}`;

/** The best match with the wavelet turned over. */
function opposite({ chain }: Tie): number {
  const { map, phaseDeg } = chain;
  const turned = ((phaseDeg + 360) % 360) - 180;
  const p = map.phases.reduce(
    (best, v, n) => (Math.abs(v - turned) < Math.abs(map.phases[best] - turned) ? n : best),
    0,
  );
  return map.values.subarray(p * map.shifts.length, (p + 1) * map.shifts.length).reduce((a, b) => Math.max(a, b), 0);
}

/** How good a tie is, in figures. */
export function Scores({ tie }: { tie: Tie }) {
  const { chain } = tie;
  const { map, logs, calibration } = chain;
  const spread = Math.sqrt(
    calibration.drift.reduce((s, d) => {
      const k = calibration.knees;
      const n = Math.max(
        1,
        k.findIndex((each) => each.tvdss >= d.tvdss),
      );
      const f = (d.tvdss - k[n - 1].tvdss) / (k[n].tvdss - k[n - 1].tvdss || 1);
      return s + (d.driftMs - (k[n - 1].driftMs + f * (k[n].driftMs - k[n - 1].driftMs))) ** 2;
    }, 0) / calibration.drift.length,
  );
  const close = map.runnerUp && map.runnerUp.correlation > chain.correlation - 0.1;
  const rows: [string, string, boolean?][] = [
    ['Correlation', `${chain.correlation.toFixed(2)} in ${(tie.windowMs[1] - tie.windowMs[0]).toFixed(0)} ms`],
    ['Shift', `${signed(chain.shiftMs)} ms`],
    ['Phase', `${signed(chain.phaseDeg, 0)}°`],
    [
      'Runner-up',
      map.runnerUp
        ? `${map.runnerUp.correlation.toFixed(2)} at ${signed(map.runnerUp.shiftMs, 0)} ms`
        : 'none in reach',
      close ?? false,
    ],
    ['Opposite polarity', opposite(tie).toFixed(2)],
    ['Checkshots', `${spread.toFixed(1)} ms rms from the line`],
    ['Density', logs.densityEstimated ? 'estimated from velocity' : 'logged', logs.densityEstimated],
    ['Mended', `${logs.spikes} spikes, ${logs.bridged} nulls`],
  ];
  return (
    <figure className={css.plot}>
      <figcaption>How good is it?</figcaption>
      <dl className={css.scores}>
        {rows.map(([label, value, warn]) => (
          <div key={label}>
            <dt>{label}</dt>
            <dd className={`num ${warn ? css.warn : ''}`}>{value}</dd>
          </div>
        ))}
      </dl>
    </figure>
  );
}
