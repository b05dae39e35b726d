import type { LucideIcon } from 'lucide-react';
import type { ComponentType } from 'react';

/** A kind of view as the desk knows it: what it is called, and how it is fetched when it is first shown. */
export interface View {
  /** As it is told of where it fails. */
  what: string;
  /** For whom chooses: what it shows. */
  shows: string;
  Icon: LucideIcon;
  load(): Promise<ComponentType>;
}
