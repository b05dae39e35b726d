import type { PickedSlice } from '../../../actions/picking/slice';
import { pathText } from '../../../picture/path';
import { useCursor } from '../../../state/cursor';
import { useHere } from '../../../state/here';
import { useTool } from '../../../state/tool';
import type { Size } from '../../common/hooks';
import type { Stroke } from '../tools/pick';
import { PicksAtHand } from './PicksAtHand';

const GREEN = '#1f766d';
const PAPER = '#fffdf7';

/** What is being drawn on the map: a ring, the line of a section, a measurement, picks on a slice. */
export function Handwork(props: {
  picked: PickedSlice | null;
  stroke: Stroke;
  size: Size;
  place(x: number, y: number): [number, number];
}) {
  const { place } = props;
  const here = useHere();
  const tool = useTool((s) => s.tool);
  const cursor = useCursor((s) => (s.at?.from === here ? s.at : null));
  if (tool?.kind === 'pick') return props.picked && <PicksAtHand {...props} tool={tool} on={props.picked} />;
  if (tool?.kind === 'erase' || tool?.kind === 'area') {
    const ring = tool.ring.map((p) => place(...p));
    return ring.length > 1 ? <path d={pathText(ring, true)} fill="#1f766d33" stroke={GREEN} strokeWidth={1.5} /> : null;
  }
  const drawn =
    tool?.kind === 'line'
      ? tool.points
      : tool?.kind === 'measure' && tool.view === here
        ? tool.points.map(([x, y]): [number, number] => [x, y])
        : [];
  if (drawn.length === 0) return null;
  const open = tool?.kind === 'line' || drawn.length === 1;
  const points = [...drawn, ...(open && cursor ? [[cursor.x, cursor.y] as [number, number]] : [])].map((p) =>
    place(...p),
  );
  return (
    <g fill="none" data-testid={tool?.kind === 'line' ? 'drawn-line' : 'measured'}>
      <path d={pathText(points)} stroke={PAPER} strokeWidth={4.4} />
      <path d={pathText(points)} stroke={GREEN} strokeWidth={2} />
      {drawn.map((p, n) => {
        const [x, y] = place(...p);
        return <circle key={n} cx={x} cy={y} r={4} fill={PAPER} stroke={GREEN} strokeWidth={1.6} />;
      })}
    </g>
  );
}
