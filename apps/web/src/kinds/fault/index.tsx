import type { Fault } from '@lithagon/core';
import { beginFault } from '../../actions/draw';
import { Button } from '../../ui/Button';
import { INK, otherDomain, webKind } from '../define';
import { FaultOnMap } from './OnMap';
import { FaultOnSection } from './OnSection';

export const fault = webKind<Fault>({
  color: INK,
  colored: true,
  actions: [({ object }) => <Button onClick={() => beginFault(object)}>Draw sticks</Button>],
  layers: {
    map: { order: 50, Draw: FaultOnMap, missing: otherDomain },
    section: { order: 30, Draw: FaultOnSection, missing: otherDomain },
    scene: { order: 30, missing: otherDomain },
  },
});
