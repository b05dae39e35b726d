import { AudioWaveform } from 'lucide-react';
import type { View } from '../define';

export const spectrum: View = {
  what: 'The spectrum',
  shows: 'Frequencies of data and noise, beds tuned to them',
  Icon: AudioWaveform,
  load: async () => (await import('./SpectrumView')).SpectrumView,
};
