import { LibraryBig } from 'lucide-react';
import type { View } from '../define';

export const catalogue: View = {
  what: 'The catalogue',
  shows: 'Every object in a table',
  Icon: LibraryBig,
  load: async () => (await import('./CatalogueView')).CatalogueView,
};
