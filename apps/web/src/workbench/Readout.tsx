import { crosslineAt, domainUnit, inlineAt, toIndex } from '@lithagon/core';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useCursor } from '../state/cursor';
import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { useRuns } from '../state/runs';
import { useMapUnit, useUnits } from '../state/units';
import { IconButton } from '../ui/Button';
import { figure } from '../ui/format';
import { domainTitle } from '../views/common/domains';
import { formatCoordinate, formatValue } from '../views/common/look';
import { shownVolume } from '../views/common/survey';
import css from './Readout.module.css';

function Pair({ name, value, unit }: { name: string; value: string; unit?: string }) {
  return (
    <span className={css.pair}>
      {name} <span className="num">{value}</span> {unit}
    </span>
  );
}

/** The strip at the bottom: where the pointer is in the earth, the project's frame, and what is at work. */
export function Readout() {
  const at = useCursor((s) => s.at);
  const objects = useProject((s) => s.objects);
  const facts = useProject((s) => s.facts);
  const units = useUnits();
  const map = useMapUnit();
  const chosen = useDesk((s) => s.volume);
  const volume = shownVolume(objects, chosen);
  const index = at && volume ? toIndex(volume.binGrid, at.x, at.y) : null;
  return (
    <footer className={css.readout}>
      {at ? (
        <>
          <Pair name="X" value={formatCoordinate(at.x / map.metres)} unit={map.unit} />
          <Pair name="Y" value={formatCoordinate(at.y / map.metres)} unit={map.unit} />
          {index && volume && (
            <>
              <Pair name="IL" value={inlineAt(volume.binGrid, Math.round(index[0])).toFixed(0)} />
              <Pair name="XL" value={crosslineAt(volume.binGrid, Math.round(index[1])).toFixed(0)} />
            </>
          )}
          {at.vertical !== null && (
            <Pair
              name={domainTitle(at.domain)}
              value={figure(units.to(at.vertical, domainUnit(at.domain)))}
              unit={units.of(domainUnit(at.domain))}
            />
          )}
          {at.value !== null && (
            <Pair
              name={at.quantity.replace(/^./, (c) => c.toUpperCase())}
              value={formatValue(units.to(at.value, at.unit))}
              unit={units.of(at.unit)}
            />
          )}
        </>
      ) : (
        <span>Point at a view to read positions and values.</span>
      )}
      <span className={css.grow} />
      <Runs />
      <span className={css.pair}>
        {facts?.frame
          ? `${facts.frame.crsName} · ${{ m: 'metres', ft: 'feet', 'us-ft': 'US survey feet' }[facts.frame.unit]}${facts.frame.display === 'field' ? ', field units' : ''}`
          : 'No coordinate system declared'}
      </span>
    </footer>
  );
}

function Runs() {
  const runs = useRuns((s) => s.runs);
  const [, tick] = useState(0);
  useEffect(() => {
    if (runs.length === 0) return;
    const timer = setInterval(() => tick((n) => n + 1), 500);
    return () => clearInterval(timer);
  }, [runs.length]);
  return (
    <span role="status" className={css.runs}>
      {runs.map((run) => {
        const gone = (Date.now() - run.started) / 1000;
        const left = run.part > 0.03 && gone > 2 ? (gone / run.part) * (1 - run.part) : null;
        return (
          <span key={run.id} className={css.run}>
            {run.title}
            <span className={css.bar}>
              <i style={{ width: `${100 * run.part}%` }} />
            </span>
            <span className="num">{(100 * run.part).toFixed(0)} %</span>
            {left !== null && <span className="num">{left.toFixed(0)} s left</span>}
            <IconButton label={`Cancel ${run.title}`} onClick={run.cancel}>
              <X size={14} />
            </IconButton>
          </span>
        );
      })}
    </span>
  );
}
