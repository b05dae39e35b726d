import type { Picks } from '@lithagon/core';
import { beginPicking } from '../../actions/picking/picks';
import { Button } from '../../ui/Button';
import { turnable, webKind } from '../define';
import { PicksOnMap } from './OnMap';
import { PicksOnSection } from './OnSection';

export const picks = webKind<Picks>({
  colored: true,
  layers: {
    map: { order: 60, Draw: PicksOnMap, missing: turnable },
    section: { order: 60, Draw: PicksOnSection, missing: turnable },
    scene: { order: 60, missing: turnable },
  },
  actions: [({ object }) => <Button onClick={() => beginPicking(object)}>Go on picking</Button>],
});
