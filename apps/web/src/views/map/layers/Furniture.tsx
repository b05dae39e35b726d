import { HALO } from '../../../kinds/mapParts';
import { useUnits } from '../../../state/units';
import type { Size } from '../../common/hooks';
import css from '../../common/view.module.css';
import { type MapFrame, scaleBar } from '../frame';

/** North and scale. */
export function Furniture({ frame, size }: { frame: MapFrame; size: Size }) {
  const units = useUnits();
  const bar = scaleBar(frame, size, units.of('m') === 'ft');
  return (
    <>
      <g transform="translate(18 24)">
        <path d="M0 -14 5 8 0 4 -5 8Z" fill="var(--ink)" stroke="var(--vellum)" strokeWidth={0.8} />
        <text y={20} textAnchor="middle" className={css.compass} style={HALO}>
          N
        </text>
      </g>
      <g transform={`translate(12 ${size.height - 26})`} stroke="var(--ink)" strokeWidth={1.2}>
        <path d={`M0 -4V4M0 0H${bar.pixels}M${bar.pixels} -4V4`} fill="none" stroke="var(--vellum)" strokeWidth={3.4} />
        <path d={`M0 -4V4M0 0H${bar.pixels}M${bar.pixels} -4V4`} fill="none" />
        <text x={bar.pixels + 6} y={4} style={HALO}>
          {bar.label}
        </text>
      </g>
    </>
  );
}
