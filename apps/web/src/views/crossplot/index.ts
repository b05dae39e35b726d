import { ChartScatter } from 'lucide-react';
import type { View } from '../define';

export const crossplot: View = {
  what: 'The crossplot',
  shows: 'Two quantities against each other',
  Icon: ChartScatter,
  load: async () => (await import('./CrossplotView')).CrossplotView,
};
