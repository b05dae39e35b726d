import { useSelection } from '../../../state/selection';
import type { Size } from '../../common/hooks';
import { azimuthsOf, fanOf } from '../../section/layers/SetupFan';

const RADIUS = 62;
const RAD = Math.PI / 180;

/** The azimuths that a scan for faults is set to, as a fan on the map: dark where they dip towards, a line across for the strikes. */
export function SetupFan({ size }: { size: Size }) {
  const setup = useSelection((s) => s.setup);
  const fan = fanOf(setup?.params);
  if (!fan) return null;
  const [cx, cy] = [size.width / 2, size.height / 2];
  const all = azimuthsOf(fan);
  const whole = all.length > 71;
  const at = (azimuth: number, r: number) =>
    `${(cx + r * Math.sin(azimuth * RAD)).toFixed(1)} ${(cy - r * Math.cos(azimuth * RAD)).toFixed(1)}`;
  const turn = 5 * (all.length - 1);
  const wedge = `M${cx} ${cy}L${at(all[0], RADIUS)}A${RADIUS} ${RADIUS} 0 ${turn > 180 ? 1 : 0} 1 ${at(all[0] + turn, RADIUS)}Z`;
  const middle = all[0] + turn / 2;
  return (
    <g data-testid="setup-fan-map" pointerEvents="none">
      {whole ? (
        <circle cx={cx} cy={cy} r={RADIUS} fill="#1f766d" fillOpacity={0.2} stroke="#1f766d" strokeWidth={1.4} />
      ) : (
        <>
          <path d={wedge} fill="#1f766d" fillOpacity={0.25} stroke="#fffdf7" strokeWidth={3} />
          <path d={wedge} fill="none" stroke="#1f766d" strokeWidth={1.4} />
          <path d={`M${at(middle + 90, RADIUS)}L${at(middle - 90, RADIUS)}`} stroke="#17191b" strokeWidth={1.6} />
        </>
      )}
      <text
        x={cx}
        y={cy - RADIUS - 6}
        textAnchor="middle"
        fontSize={11}
        fontWeight={600}
        fill="#17191b"
        stroke="#fffdf7"
        strokeWidth={3}
        paintOrder="stroke"
      >
        {whole ? 'faults that dip any way' : `dip towards ${fan.towardsFrom}° to ${fan.towardsTo}°`}
      </text>
    </g>
  );
}
