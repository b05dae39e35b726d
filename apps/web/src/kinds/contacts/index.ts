import type { FluidContacts } from '@lithagon/core';
import { webKind } from '../define';

export const contacts = webKind<FluidContacts>();
