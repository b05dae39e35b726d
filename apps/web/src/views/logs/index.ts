import { Logs } from 'lucide-react';
import type { View } from '../define';

export const logs: View = {
  what: 'The logs',
  shows: 'Wells side by side',
  Icon: Logs,
  load: async () => (await import('./LogsView')).LogsView,
};
