import type { Tie } from '@lithagon/core';
import { figure, signed } from '../../ui/format';
import { StripPlot } from './StripPlot';
import css from './Tie.module.css';

/** How good a tie is, in figures. */
export function Scores({ tie }: { tie: Tie }) {
  const { chain } = tie;
  const { map, logs, calibration, evidence, change, warnings } = chain;
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
  const apart = warnings.some((w) => w.startsWith('Checkshots and seismic'));
  const close = warnings.some((w) => w.startsWith('Another event'));
  const rows: [string, string, boolean?][] = [
    ['Correlation', `${figure(chain.correlation, 2)} in ${(tie.windowMs[1] - tie.windowMs[0]).toFixed(0)} ms`],
    ['Shift', `${signed(chain.shiftMs)} ± ${evidence.uncertaintyMs.toFixed(1)} ms (90 %)`],
    ['Match alone', `${signed(evidence.byMatch.shiftMs)} ± ${evidence.byMatch.uncertaintyMs.toFixed(1)} ms`, apart],
    ['Phase', `${signed(chain.phaseDeg, 0)} ± ${evidence.uncertaintyDeg.toFixed(0)}°`],
    [
      'Runner-up',
      map.runnerUp
        ? `${figure(map.runnerUp.correlation, 2)} at ${signed(map.runnerUp.shiftMs, 0)} ms`
        : 'none in reach',
      close,
    ],
    [
      'Polarity',
      `${figure(evidence.asDeclared, 2)}; turned over ${figure(evidence.turnedOver, 2)}`,
      evidence.turnedOver > evidence.asDeclared,
    ],
    [
      'Chance',
      `${evidence.chance <= 0.011 ? 'under 1' : (100 * evidence.chance).toFixed(0)} % of noise is as good`,
      evidence.chance > 0.05,
    ],
    ['Predicts', `${(100 * chain.correlation ** 2).toFixed(0)} % of the trace`],
    ...(evidence.leftOut === null
      ? []
      : [['Left out', `${figure(evidence.leftOut, 2)} on parts not fitted`] as [string, string]]),
    [
      'Velocity',
      change.part === 0 ? 'as calibrated' : `changed ${signed(100 * change.part)} % at most`,
      warnings.some((w) => w.startsWith('Velocity')),
    ],
    [
      'Checkshots',
      tie.borrowedFrom
        ? 'none of its own'
        : `${evidence.byCheckshots ? `± ${evidence.byCheckshots.uncertaintyMs.toFixed(1)} ms, ` : ''}scatter ${spread.toFixed(1)} ms`,
    ],
    ['Density', logs.densityEstimated ? 'estimated from velocity' : 'logged', logs.densityEstimated],
    ['Mended', `${logs.spikes.reduce((n, s) => n + s.md.length, 0)} spikes (×), ${logs.bridged} nulls`],
  ];
  return (
    <StripPlot title="How good is it?">
      <dl className={css.scores}>
        {rows.map(([label, value, warn]) => (
          <div key={label}>
            <dt>{label}</dt>
            <dd className={`num ${warn ? css.warn : ''}`}>{value}</dd>
          </div>
        ))}
      </dl>
      {(warnings.length > 0 || tie.notes.length > 0 || tie.borrowedFrom) && (
        <ul className={css.against} aria-label="What speaks against the tie">
          {tie.borrowedFrom && <li>No checkshots: times begin as those of {tie.borrowedFrom}.</li>}
          {[...warnings, ...tie.notes].map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      )}
    </StripPlot>
  );
}
