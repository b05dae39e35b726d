import type { Navigation } from '@lithagon/core';
import { webKind } from '../define';

export const navigation = webKind<Navigation>();
