import { Map as MapIcon } from 'lucide-react';
import type { View } from '../define';

export const map: View = {
  what: 'The map',
  shows: 'The survey from above: slices, horizons, maps, wells',
  Icon: MapIcon,
  load: async () => (await import('./MapView')).MapView,
};
