import { activeOf, changeSettings, settingsOf } from '../../../state/views';
import type { ShownWell } from '../../common/survey';
import { withWell } from '../../logs/wellLine';
import type { Hands } from './hands';

/** How near to a well a click counts as on it, pixels. */
const NEAR = 16;

/** The well whose path comes nearest to a place, within reach of a click. */
export function wellNear(wells: ShownWell[], x: number, y: number, perPixel: number): ShownWell | undefined {
  const near = wells
    .map((w) => ({ w, far: Math.min(...w.points.map(([a, b]) => Math.hypot(a - x, b - y))) }))
    .sort((a, b) => a.far - b.far)[0];
  return near && near.far <= NEAR * perPixel ? near.w : undefined;
}

/** A click near a well puts it at the end of the line of the Logs view, or with Shift in between, or takes it out. */
export function wellsHands(wells: ShownWell[], perPixel: number): Hands {
  return {
    click({ x, y, event }) {
      const near = wellNear(wells, x, y, perPixel)?.well.id;
      if (!near) return;
      const view = activeOf('logs');
      const logs = settingsOf('logs', view);
      const line = () => {
        if (logs.wells.includes(near)) return logs.wells.filter((id) => id !== near);
        if (!event.shiftKey) return [...logs.wells, near];
        return withWell(
          logs.wells,
          wells.map((w) => w.well),
          near,
        );
      };
      changeSettings('logs', view, { wells: line() });
    },
  };
}
