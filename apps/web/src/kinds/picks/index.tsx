import type { Picks } from '@lithagon/core';
import { beginPicking } from '../../actions/draw';
import { Button } from '../../ui/Button';
import { webKind } from '../define';

export const picks = webKind<Picks>({
  colored: true,
  actions: [({ object }) => <Button onClick={() => beginPicking(object)}>Go on picking</Button>],
});
