import { Box } from 'lucide-react';
import type { View } from '../define';

export const scene: View = {
  what: 'The scene',
  shows: 'Planes, horizons, faults and wells in three dimensions',
  Icon: Box,
  load: async () => (await import('./SceneView')).SceneView,
};
