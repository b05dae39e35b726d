import { useSelection } from '../../../state/selection';
import { type Frame, scales } from '../frame';

const RAD = Math.PI / 180;

/** Ranges of dip and of the azimuth dipped towards, of a step that is being set up; null where it has none. */
export function fanOf(params: Record<string, unknown> | undefined) {
  const { towardsFrom, towardsTo, dipFrom, dipTo, velocity } = params ?? {};
  if (![towardsFrom, towardsTo, dipFrom, dipTo, velocity].every((v) => typeof v === 'number')) return null;
  return { towardsFrom, towardsTo, dipFrom, dipTo, velocity } as Record<
    'towardsFrom' | 'towardsTo' | 'dipFrom' | 'dipTo' | 'velocity',
    number
  >;
}

/** Azimuths of a range, one by one. */
export function azimuthsOf({ towardsFrom, towardsTo }: { towardsFrom: number; towardsTo: number }): number[] {
  const turn = (((towardsTo - towardsFrom) % 360) + 360) % 360 || 360;
  return Array.from({ length: Math.floor(turn / 5) + 1 }, (_, n) => (towardsFrom + n * 5) % 360);
}

/** Apparent dips, as metres down over metres along, of what dips to one side of a line: the flattest and the steepest; null where nothing does. */
export function apparent(
  fan: NonNullable<ReturnType<typeof fanOf>>,
  lineAzimuth: number,
  side: 1 | -1,
): [flattest: number, steepest: number] | null {
  let [low, high] = [Number.POSITIVE_INFINITY, 0];
  for (const a of azimuthsOf(fan)) {
    const c = side * Math.cos((a - lineAzimuth) * RAD);
    // what runs along the section is not seen as dipping on it
    if (c < 0.5) continue;
    low = Math.min(low, Math.tan(Math.min(fan.dipFrom, fan.dipTo) * RAD) * c);
    high = Math.max(high, Math.tan(Math.max(fan.dipFrom, fan.dipTo) * RAD) * c);
  }
  return high > 0 ? [low, high] : null;
}

const RADIUS = 74;

/** The dips that a scan for faults is set to, as a fan in the section: as they would look on it, at its own scale. */
export function SetupFan({ frame }: { frame: Frame }) {
  const setup = useSelection((s) => s.setup);
  const fan = fanOf(setup?.params);
  if (!fan) return null;
  const { line, box, window, domain } = frame;
  const { x, y } = scales(frame);
  const middle = (window.x0 + window.x1) / 2;
  const [a, b] = [line.place(middle), line.place(middle + 1)];
  const perTrace = Math.hypot(b[0] - a[0], b[1] - a[1]);
  if (!(perTrace > 0)) return null;
  const azimuth = Math.atan2(b[0] - a[0], b[1] - a[1]) / RAD;
  // sections may run from right to left
  const perMetre = (x(middle + 1) - x(middle)) / perTrace;
  const down = (y(1) - y(0)) * (domain === 'twt' ? 2000 / fan.velocity : 1);
  const [cx, cy] = [box.left + box.width / 2, box.top + box.height * 0.3];
  const wedges = ([1, -1] as const).flatMap((side) => {
    const dips = apparent(fan, azimuth, side);
    if (!dips) return [];
    const ends = dips.map((tan) => {
      const [dx, dy] = [side * perMetre, tan * down];
      const size = Math.hypot(dx, dy);
      return [cx + (RADIUS * dx) / size, cy + (RADIUS * dy) / size];
    });
    const sweep = side * perMetre > 0 ? 1 : 0;
    return [
      { side, ends, d: `M${cx} ${cy}L${ends[0].join(' ')}A${RADIUS} ${RADIUS} 0 0 ${sweep} ${ends[1].join(' ')}Z` },
    ];
  });
  return (
    <g data-testid="setup-fan" pointerEvents="none">
      {wedges.map(({ side, d }) => (
        <g key={side}>
          <path d={d} fill="#1f766d" fillOpacity={0.25} stroke="#fffdf7" strokeWidth={3} strokeOpacity={0.8} />
          <path d={d} fill="none" stroke="#1f766d" strokeWidth={1.4} />
        </g>
      ))}
      <text
        x={cx}
        y={cy - 7}
        textAnchor="middle"
        fontSize={11}
        fontWeight={600}
        fill="#17191b"
        stroke="#fffdf7"
        strokeWidth={3}
        paintOrder="stroke"
      >
        {wedges.length > 0
          ? `faults that dip ${fan.dipFrom}° to ${fan.dipTo}°, as they look here`
          : 'no fault of these azimuths dips along this section'}
      </text>
    </g>
  );
}
