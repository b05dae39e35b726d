import { pathText } from '../../picture/path';
import { useHere } from '../../state/here';
import { useTool } from '../../state/tool';
import { type SceneFrame, toScene } from './planes';

/** The two places of a measurement in a scene, and the line between them. */
export function SceneMeasure(props: {
  frame: SceneFrame;
  project(p: [number, number, number]): { x: number; y: number };
}) {
  const here = useHere();
  const tool = useTool((s) => s.tool);
  if (tool?.kind !== 'measure' || tool.view !== here || tool.points.length === 0) return null;
  const points = tool.points.map(([x, y, v]): [number, number] => {
    const p = props.project(toScene(props.frame, x, y, v ?? props.frame.middle));
    return [p.x, p.y];
  });
  return (
    <g fill="none" data-testid="measured">
      <path d={pathText(points)} stroke="#fffdf7" strokeWidth={4} />
      <path d={pathText(points)} stroke="#1f766d" strokeWidth={1.8} />
      {points.map(([x, y], n) => (
        <circle key={n} cx={x} cy={y} r={3.4} fill="#fffdf7" stroke="#1f766d" strokeWidth={1.5} />
      ))}
    </g>
  );
}
