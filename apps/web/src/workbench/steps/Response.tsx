import type { AnyStep, Volume } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useEffect, useState } from 'react';
import { forViews, unwrap } from '../../compute/pool';
import { pathText } from '../../picture/path';
import { useProject } from '../../state/project';
import { activeOf, usePlace, useSettings } from '../../state/views';
import { indexAt } from '../../views/common/survey';
import css from '../sheet/Sheet.module.css';

const [W, H, LEFT, BOTTOM] = [226, 104, 26, 16];
const FLOOR = -48;

/** The gain of a filter over frequency, drawn over the spectrum of the line in view. */
export function Response(props: { step: AnyStep; params: Record<string, unknown>; volume: Volume }) {
  const { step, params, volume } = props;
  const projectId = useProject((s) => s.id);
  const section = activeOf('section');
  const [{ along }] = useSettings('section', section);
  const plane = along === 'crossline' ? 'crossline' : 'inline';
  const index = indexAt(volume, plane, usePlace(section));
  const [spectrum, setSpectrum] = useState<{ hz: number[]; db: number[] } | null>(null);
  useEffect(() => {
    let wanted = true;
    void forViews()
      .spectrum(projectId, volume, plane, index)
      .then((outcome) => wanted && setSpectrum(unwrap(outcome)));
    return () => {
      wanted = false;
    };
  }, [projectId, volume, plane, index]);
  if (!spectrum) return null;
  const { hz, db } = spectrum;
  const nyquist = hz[hz.length - 1];
  const x = (f: number) => LEFT + (f / nyquist) * (W - LEFT - 4);
  const y = (d: number) => 4 + (Math.max(FLOOR, Math.min(0, d)) / FLOOR) * (H - BOTTOM - 4);
  const path = (values: number[]) => pathText(values.map((v, n) => [x(hz[n]), y(v)]));
  const gains = hz.map((f) => 20 * Math.log10((step.response?.(params, f) ?? 1) + 1e-6));
  const ticks = scaleLinear().domain([0, nyquist]).ticks(5);
  return (
    <figure className={css.response}>
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label="Response over the spectrum of the line">
        {[0, -12, -24, -36, -48].map((d) => (
          <g key={d}>
            <path d={`M${LEFT} ${y(d)}H${W - 4}`} stroke="var(--ash)" strokeWidth={0.6} />
            <text x={LEFT - 4} y={y(d) + 3} textAnchor="end">
              {d}
            </text>
          </g>
        ))}
        {ticks.map((f) => (
          <text key={f} x={x(f)} y={H - 4} textAnchor="middle">
            {f}
          </text>
        ))}
        <path d={`${path(db)}L${x(nyquist)} ${y(FLOOR)}L${x(0)} ${y(FLOOR)}Z`} fill="var(--slate)" fillOpacity={0.25} />
        <path d={path(gains)} fill="none" stroke="var(--ochre)" strokeWidth={1.6} />
      </svg>
      <figcaption>dB over Hz: the filter in ochre, the line in view as grey</figcaption>
    </figure>
  );
}
