import { Compass } from 'lucide-react';
import type { View } from '../define';

export const net: View = {
  what: 'The net',
  shows: 'Strike and dip of faults: poles, density, sets',
  Icon: Compass,
  load: async () => (await import('./NetView')).NetView,
};
