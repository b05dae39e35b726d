import { Layers } from 'lucide-react';
import type { View } from '../define';

export const pay: View = {
  what: 'Net pay',
  shows: 'Net pay of a bed: tuning, wedge, wells and map at one scale',
  Icon: Layers,
  load: async () => (await import('./PayView')).PayView,
};
