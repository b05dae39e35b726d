import type { Bodies } from '@lithagon/core';
import { BodyTable } from '../../workbench/sheet/BodyTable';
import { otherDomain, turnable, webKind } from '../define';
import { BodiesOnMap } from './OnMap';
import { BodiesOnSection } from './OnSection';

export const bodies = webKind<Bodies>({
  sheet: [BodyTable],
  layers: {
    map: { order: 32, Draw: BodiesOnMap },
    section: { order: 30, missing: turnable, Draw: BodiesOnSection },
    scene: { order: 15, missing: otherDomain },
  },
});
