import { BEDS } from '../stages/beds';
import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { useRuns } from '../state/runs';
import { useSelection } from '../state/selection';
import { counted } from '../ui/format';
import css from './Column.module.css';

/** The uneven top of a bed, different for each. */
function edgeOf(seed: number): string {
  let d = '';
  for (let x = 0; x <= 78; x += 6)
    d += `${x ? 'L' : 'M'}${x} ${(1.5 + 1.4 * Math.sin(x * 0.11 + seed * 2.1) + 0.9 * Math.sin(x * 0.31 + seed)).toFixed(1)}`;
  return d;
}

/** The worn right side of a bed that holds something out of date. */
function wornOf(): string {
  let d = 'M78 0';
  for (let y = 0; y <= 100; y += 5) d += `L${(68 + 6 * Math.abs(Math.sin(y * 1.7))).toFixed(1)} ${y}`;
  return `${d}L78 100Z`;
}

/** The work laid down like strata: oldest at the bottom. A bed is faint while empty, worn where out of date. */
export function Column() {
  const objects = useProject((s) => s.objects);
  const old = useProject((s) => s.old);
  const stage = useDesk((s) => s.stage);
  const runs = useRuns((s) => s.runs);
  return (
    <nav className={css.column} aria-label="Stages of the work">
      {BEDS.map((bed, n) => {
        const held = objects.filter((o) => o.stage === bed.id);
        const worn = held.filter((o) => old.has(o.id)).length;
        const state = [
          stage === bed.id ? css.on : '',
          held.length ? css.full : '',
          runs.some((r) => r.stage === bed.id) ? css.busy : '',
        ];
        return (
          <button
            key={bed.id}
            type="button"
            className={`${css.bed} ${state.join(' ')}`}
            aria-pressed={stage === bed.id}
            title={`${bed.summary} (${bed.digit})`}
            onClick={() => {
              useDesk.setState({ stage: stage === bed.id ? null : bed.id });
              // where the sheet lies over the tray, the tray was asked for
              if (innerWidth <= 1000) useSelection.setState({ object: null });
            }}
          >
            <svg preserveAspectRatio="none" aria-hidden="true">
              <defs>
                {/* inside its own bed, whose colour it takes */}
                <pattern id={`rock-${bed.id}`} width="20" height="20" patternUnits="userSpaceOnUse">
                  <g fill="none" stroke="currentColor" strokeWidth="1.05" strokeLinecap="round">
                    {bed.pattern}
                  </g>
                </pattern>
              </defs>
              <rect width="100%" height="100%" className={css.ground} />
              <rect width="100%" height="100%" fill={`url(#rock-${bed.id})`} className={css.rock} />
              <path d={edgeOf(n)} fill="none" className={css.edge} />
              {worn > 0 && <path d={wornOf()} className={css.worn} />}
            </svg>
            {held.length > 0 && (
              <span
                aria-hidden="true"
                className={css.count}
                style={worn ? { color: 'var(--cinnabar)', right: 18 } : undefined}
              >
                {worn || held.length}
              </span>
            )}
            <b>{bed.name}</b>
            <span className="unseen">
              : {counted(held.length, 'object')}
              {worn ? `, ${worn} out of date` : ''}
            </span>
          </button>
        );
      })}
    </nav>
  );
}
