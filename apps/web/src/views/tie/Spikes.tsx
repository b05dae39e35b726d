import type { Tie } from '@lithagon/core';
import { useUnits } from '../../state/units';
import type { Box, Scale } from './parts';
import css from './Tie.module.css';

/** Half the width of a cross, pixels. */
const ARM = 3;

/** Readings that were taken out as spikes before the tie, crossed where they were logged; at the edge where they lie beyond it. */
export function Spikes(props: { tie: Tie; y: Scale; box: Box; limits: Record<'sonic' | 'density', [number, number]> }) {
  const units = useUnits();
  const { tie, y, box, limits } = props;
  const { logs, twt } = tie.chain;
  const [from, to] = y.domain();
  const indexOf = (md: number) => {
    const step = logs.md.length > 1 ? logs.md[1] - logs.md[0] : 1;
    return Math.min(logs.md.length - 1, Math.max(0, Math.round((md - logs.md[0]) / step)));
  };
  return (
    <g>
      {logs.spikes.flatMap(({ log, md, logged }) =>
        md.map((m, n) => {
          const at = twt[indexOf(m)];
          if (!(at >= from && at <= to)) return null;
          const [value, unit] =
            log === 'sonic' ? [units.to(logged[n], 'us/m'), units.of('us/m')] : [logged[n] / 1000, 'g/cm³'];
          const [low, high] = limits[log];
          const part = Math.min(1, Math.max(0, (value - low) / (high - low)));
          const [cx, cy] = [box.left + ARM + part * (box.width - 2 * ARM), y(at)];
          return (
            <path
              key={`${log}${m}`}
              className={css.spike}
              stroke={log === 'sonic' ? 'var(--slate)' : 'var(--ochre)'}
              d={`M${cx - ARM} ${cy - ARM}l${2 * ARM} ${2 * ARM}m0 ${-2 * ARM}l${-2 * ARM} ${2 * ARM}`}
            >
              <title>{`Spike of the ${log} taken out: ${value.toFixed(log === 'sonic' ? 0 : 2)} ${unit} at ${units.text(m, 'm', 1)} MD`}</title>
            </path>
          );
        }),
      )}
    </g>
  );
}
