import type { FluidContacts } from '@lithagon/core';

/** Contacts of a column by name, depth (m TVDSS) and the colour of the fluid above. */
export function contactLevels({ gocM, owcM }: FluidContacts): { name: string; depth: number; color: string }[] {
  if (gocM === null) return [{ name: 'Oil–water', depth: owcM, color: '#2c8a3f' }];
  if (gocM === owcM) return [{ name: 'Gas–water', depth: owcM, color: '#c3362c' }];
  return [
    { name: 'Gas–oil', depth: gocM, color: '#c3362c' },
    { name: 'Oil–water', depth: owcM, color: '#2c8a3f' },
  ];
}
