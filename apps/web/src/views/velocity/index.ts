import { ChartLine } from 'lucide-react';
import type { View } from '../define';

export const velocity: View = {
  what: 'The velocity view',
  shows: 'Velocity and depth by time at the cursor: every model, volume and well beside each other',
  Icon: ChartLine,
  load: async () => (await import('./VelocityView')).VelocityView,
};
