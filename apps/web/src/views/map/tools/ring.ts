import type { Horizon } from '@lithagon/core';
import { erase, keepArea } from '../../../actions/draw';
import { useProject } from '../../../state/project';
import { type Tool, takeTool } from '../../../state/tool';
import type { Hands } from './hands';

type RingTool = Extract<Tool, { kind: 'erase' | 'area' }>;

/** A ring drawn with the pointer held down, or set corner by corner with P and closed with Enter. */
export function ringHands(tool: RingTool, perPixel: number): Hands {
  const end = () => {
    const { ring } = tool;
    if (tool.kind === 'area') {
      void keepArea(tool.name, ring);
      return takeTool(null);
    }
    const erased = useProject.getState().byId.get(tool.horizon) as Horizon | undefined;
    takeTool({ ...tool, ring: [] });
    if (erased) void erase(erased, ring);
  };
  return {
    down: ({ x, y }) => takeTool({ ...tool, ring: [[x, y]] }),
    drag({ x, y }) {
      const last = tool.ring[tool.ring.length - 1];
      if (last && Math.hypot(x - last[0], y - last[1]) > 4 * perPixel)
        takeTool({ ...tool, ring: [...tool.ring, [x, y]] });
    },
    up: () => (tool.ring.length > 2 ? end() : takeTool({ ...tool, ring: [] })),
    click: ({ x, y }) => takeTool({ ...tool, ring: [...tool.ring, [x, y]] }),
    end,
    back: () => takeTool({ ...tool, ring: tool.ring.slice(0, -1) }),
  };
}
