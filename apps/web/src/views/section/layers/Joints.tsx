import { useLabels } from '../../common/labels/Labels';
import { type Frame, scales } from '../frame';
import type { Along } from '../useAlong';

/** Where one line of a composite ends and the next begins, and which each is. */
export function Joints({ frame, joints }: { frame: Frame; joints: Along['joints'] }) {
  const { box } = frame;
  const { x } = scales(frame);
  const seen = joints.map(({ name, trace }, n) => ({
    name,
    from: x(trace),
    to: n + 1 < joints.length ? x(joints[n + 1].trace) : box.left + box.width,
  }));
  useLabels(
    'joints',
    seen
      .filter(({ from, to }) => to > box.left && from < box.left + box.width)
      .map(({ name, from }, n) => ({
        id: `joint ${n}`,
        text: name,
        color: '#17191b',
        rank: 3,
        at: [
          [Math.max(box.left, from) + 5, box.top + 13],
          [Math.max(box.left, from) + 5, box.top + 27],
        ],
      })),
  );
  return (
    <g stroke="#17191b" strokeWidth={1.3} strokeOpacity={0.75}>
      {seen.slice(1).map(({ name, from }, n) => (
        <path key={`${name} ${n}`} d={`M${from} ${box.top}v${box.height}`} data-joint={name} />
      ))}
    </g>
  );
}
