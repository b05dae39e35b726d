import type { FaultSets } from '@lithagon/core';
import { openView } from '../../state/dock';
import { Button } from '../../ui/Button';
import { webKind } from '../define';

export const faultSets = webKind<FaultSets>({
  show: () => openView('net'),
  actions: [() => <Button onClick={() => openView('net')}>Show on the net</Button>],
});
