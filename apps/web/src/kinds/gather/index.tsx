import type { SyntheticGather } from '@lithagon/core';
import { GatherSheet } from '../../workbench/sheet/GatherSheet';
import { webKind } from '../define';

export const gather = webKind<SyntheticGather>({ sheet: [({ object }) => <GatherSheet gather={object} />] });
