import { Link2 } from 'lucide-react';
import type { View } from '../define';

export const tie: View = {
  what: 'The tie',
  shows: 'A well against the seismic',
  Icon: Link2,
  load: async () => (await import('./TieView')).TieView,
};
