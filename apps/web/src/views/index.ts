import type { LucideIcon } from 'lucide-react';
import { Box, ChartScatter, LibraryBig, Link2, Logs, Map as MapIcon, Waves } from 'lucide-react';
import type { ComponentType } from 'react';
import type { ViewKind } from '../state/views';

/** A kind of view as the desk knows it: what it is called, and how it is fetched when it is first shown. */
interface View {
  /** As it is told of where it fails. */
  what: string;
  /** For whom chooses: what it shows. */
  shows: string;
  Icon: LucideIcon;
  load(): Promise<ComponentType>;
}

export const VIEWS: Record<ViewKind, View> = {
  section: {
    what: 'The section',
    shows: 'Seismic along a line, with what was interpreted on it',
    Icon: Waves,
    load: async () => (await import('./section/SectionView')).SectionView,
  },
  map: {
    what: 'The map',
    shows: 'The survey from above: slices, horizons, maps, wells',
    Icon: MapIcon,
    load: async () => (await import('./map/MapView')).MapView,
  },
  scene: {
    what: 'The scene',
    shows: 'Planes, horizons, faults and wells in three dimensions',
    Icon: Box,
    load: async () => (await import('./scene/SceneView')).SceneView,
  },
  logs: {
    what: 'The logs',
    shows: 'Wells side by side',
    Icon: Logs,
    load: async () => (await import('./logs/LogsView')).LogsView,
  },
  tie: {
    what: 'The tie',
    shows: 'A well against the seismic',
    Icon: Link2,
    load: async () => (await import('./tie/TieView')).TieView,
  },
  crossplot: {
    what: 'The crossplot',
    shows: 'Two quantities against each other',
    Icon: ChartScatter,
    load: async () => (await import('./crossplot/CrossplotView')).CrossplotView,
  },
  catalogue: {
    what: 'The catalogue',
    shows: 'Every object in a table',
    Icon: LibraryBig,
    load: async () => (await import('./catalogue/CatalogueView')).CatalogueView,
  },
};
