import type { FaultThrow } from '@lithagon/core';
import { webKind } from '../define';
import { ThrowMap } from './ThrowMap';

export const faultThrow = webKind<FaultThrow>({ sheet: [ThrowMap] });
