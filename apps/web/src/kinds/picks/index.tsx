import type { Picks } from '@lithagon/core';
import { beginPicking } from '../../actions/pick';
import { Button } from '../../ui/Button';
import { otherDomain, webKind } from '../define';
import { PicksOnSection } from './OnSection';

export const picks = webKind<Picks>({
  colored: true,
  layers: {
    section: { order: 60, Draw: PicksOnSection, missing: otherDomain },
    scene: { order: 60, missing: otherDomain },
  },
  actions: [({ object }) => <Button onClick={() => beginPicking(object)}>Go on picking</Button>],
});
