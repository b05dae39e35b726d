import type { Fault } from '@lithagon/core';
import { beginFault } from '../../actions/draw';
import { takeTool } from '../../state/tool';
import { Button } from '../../ui/Button';
import { webKind } from '../define';
import { faultColor, notTurned } from './look';
import { FaultOnMap } from './OnMap';
import { FaultOnSection } from './OnSection';

export const fault = webKind<Fault>({
  color: faultColor,
  colored: true,
  actions: [
    ({ object }) => <Button onClick={() => beginFault(object)}>Draw sticks</Button>,
    ({ object }) => (
      <Button onClick={() => takeTool({ kind: 'close', fault: object.id, throw: 0, at: null, height: 240 })}>
        Close it by a throw…
      </Button>
    ),
  ],
  layers: {
    map: { order: 50, Draw: FaultOnMap, missing: notTurned },
    section: { order: 30, Draw: FaultOnSection, missing: notTurned },
    scene: { order: 30, missing: notTurned },
  },
});
