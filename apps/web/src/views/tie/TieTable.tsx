import { activeRelation, type TimeDepthRelation, type Well } from '@lithagon/core';
import { groups } from 'd3-array';
import { prepareNamed } from '../../actions/steps';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { select } from '../../state/selection';
import { figure, signed } from '../../ui/format';
import { StripPlot } from './StripPlot';
import css from './Tie.module.css';

/** Every accepted tie with its figures; of several of one well one is active, and any can be made so. */
export function TieTable() {
  const objects = useProject((s) => s.objects);
  const ties = objects
    .filter((o): o is TimeDepthRelation => o.kind === 'time-depth relation')
    .sort(
      (a, b) =>
        a.well.localeCompare(b.well, 'en', { numeric: true }) || a.madeBy.started.localeCompare(b.madeBy.started),
    );
  return (
    <StripPlot title="All ties" note="the active one of each well is in use everywhere">
      <table className={css.ties}>
        <thead>
          <tr>
            {['Well', 'Tie', 'Match', 'Phase', 'Shift (ms)', '± (ms)', 'Chance', ''].map((t) => (
              <th key={t}>{t}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ties.map((t) => {
            const active = activeRelation(objects, t.well)?.id === t.id;
            return (
              <tr key={t.id} aria-current={active}>
                <td>{t.well}</td>
                <td>
                  <button type="button" onClick={() => select(t.id)}>
                    {t.name}
                  </button>
                </td>
                <td className="num">{figure(t.correlation, 2)}</td>
                <td className="num">{signed(t.phaseDeg, 0)}°</td>
                <td className="num">{signed(t.shiftMs)}</td>
                <td className="num">{t.evidence ? t.evidence.uncertaintyMs.toFixed(1) : '–'}</td>
                <td className="num">{t.evidence ? t.evidence.chance.toFixed(2) : '–'}</td>
                <td>
                  {active ? (
                    'active'
                  ) : (
                    <button
                      type="button"
                      onClick={() =>
                        void edit(`Make ${t.name} active`, [t], [{ ...t, activated: new Date().toISOString() }])
                      }
                    >
                      make active
                    </button>
                  )}
                  {t.evidence && t.evidence.warnings.length > 0 ? ' · warned' : ''}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <PhaseOffer ties={ties.filter((t) => activeRelation(objects, t.well)?.id === t.id)} />
    </StripPlot>
  );
}

/** Degrees by which phases of one volume may differ without a word. */
const ALIKE_DEG = 10;

/** One volume has one wavelet: where ties to it found phases that differ, a common one is offered. */
function PhaseOffer({ ties }: { ties: TimeDepthRelation[] }) {
  const idOf = (t: TimeDepthRelation, role: string) => t.madeBy.inputs[role]?.[0]?.split('@')[0] ?? '';
  const [group] = groups(ties, (t) => `${idOf(t, 'seismic')} ${idOf(t, 'wavelet')}`)
    .map(([, own]) => own)
    .sort((a, b) => b.length - a.length);
  if (!group || group.length < 2) return null;
  const phases = group.map((t) => t.phaseDeg);
  if (Math.max(...phases) - Math.min(...phases) <= ALIKE_DEG) return null;
  return (
    <p className={css.offer}>
      One volume has one wavelet, and these ties turned it by {phases.map((p) => `${signed(p, 0)}°`).join(', ')}.{' '}
      <button
        type="button"
        onClick={() =>
          prepareNamed('tie.phase', {
            wells: group.map((t) => idOf(t, 'well')),
            seismic: [idOf(group[0], 'seismic')],
            wavelet: [idOf(group[0], 'wavelet')],
          })
        }
      >
        Find a common phase
      </button>
    </p>
  );
}

/** Shifts that the ties needed, where the wells stand: neighbours that differ ask why. */
export function ShiftMap() {
  const objects = useProject((s) => s.objects);
  const places = objects
    .filter((o): o is Well => o.kind === 'well')
    .flatMap((well) => {
      const tie = activeRelation(objects, well.name);
      return tie ? [{ name: well.name, x: well.x, y: well.y, ms: tie.shiftMs }] : [];
    });
  if (places.length < 2) return null;
  const [W, H] = [190, 132];
  const [x0, x1] = [Math.min(...places.map((p) => p.x)), Math.max(...places.map((p) => p.x))];
  const [y0, y1] = [Math.min(...places.map((p) => p.y)), Math.max(...places.map((p) => p.y))];
  const scale = Math.min((W - 70) / (x1 - x0 || 1), (H - 50) / (y1 - y0 || 1));
  const most = Math.max(1, ...places.map((p) => Math.abs(p.ms)));
  return (
    <StripPlot title="Shift by place" note="ms, north is up">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        width={W}
        height={H}
        role="img"
        aria-label="Shift of each tie where its well stands"
      >
        {places.map((p) => {
          const cx = 30 + (p.x - x0) * scale;
          const cy = H - 26 - (p.y - y0) * scale;
          // names stand on the side that has room for them
          const [beside, anchor] = cx > W / 2 ? [cx - 13, 'end' as const] : [cx + 13, 'start' as const];
          return (
            <g key={p.name}>
              <circle
                cx={cx}
                cy={cy}
                r={3 + (9 * Math.abs(p.ms)) / most}
                fill={p.ms < 0 ? '#4f6f8f' : '#b4641e'}
                fillOpacity={0.75}
              />
              <text x={beside} y={cy + 1} textAnchor={anchor}>
                {p.name}
              </text>
              <text x={beside} y={cy + 12} textAnchor={anchor} className={css.number}>
                {signed(p.ms)}
              </text>
            </g>
          );
        })}
      </svg>
    </StripPlot>
  );
}
