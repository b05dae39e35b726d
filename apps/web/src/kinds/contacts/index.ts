import type { Domain, FluidContacts } from '@lithagon/core';
import { webKind } from '../define';
import { ContactsOnSection } from './OnSection';

const inDepth = (_: FluidContacts, domain: Domain) =>
  domain !== 'depth' ? 'lie at a depth; switch this view to depth' : null;

export const contacts = webKind<FluidContacts>({
  layers: {
    section: { order: 20, Draw: ContactsOnSection, missing: inDepth },
    scene: { order: 20, missing: inDepth },
  },
});
