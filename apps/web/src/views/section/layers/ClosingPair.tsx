import { useClosing } from '../../../state/closing';
import { useTool } from '../../../state/tool';
import { type Frame, scales } from '../frame';

/** The two ends of the bed about which a fault is closed: level with each other, as the hanging wall is put back. */
export function ClosingPair({ frame }: { frame: Frame }) {
  const pair = useClosing((s) => s.closing?.pair);
  const tool = useTool((s) => (s.tool?.kind === 'close' ? s.tool : null));
  if (!pair || !tool || frame.domain !== 'twt') return null;
  const { x, y } = scales(frame);
  const [foot, hanging] = pair.map(([px, py, level], n): [number, number] => [
    x(frame.line.nearest(px, py)[0]),
    y(level - n * tool.throw),
  ]);
  return (
    <g data-testid="closing-pair" fill="var(--vellum)" stroke="var(--ochre)" strokeWidth={2}>
      <path d={`M${foot.join(' ')}L${hanging.join(' ')}`} fill="none" strokeDasharray="3 3" />
      {[foot, hanging].map(([cx, cy], n) => (
        <circle key={n} cx={cx} cy={cy} r={4} />
      ))}
    </g>
  );
}
