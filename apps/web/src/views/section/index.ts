import { Waves } from 'lucide-react';
import type { View } from '../define';

export const section: View = {
  what: 'The section',
  shows: 'Seismic along a line, with what was interpreted on it',
  Icon: Waves,
  load: async () => (await import('./SectionView')).SectionView,
};
