import type { VelocityModel } from '@lithagon/core';
import { useConversion } from '../../state/conversion';
import { openView } from '../../state/dock';
import { LayerVelocities } from '../../workbench/sheet/LayerVelocities';
import { webKind } from '../define';

export const velocityModel = webKind<VelocityModel>({
  sheet: [LayerVelocities],
  show: (object) => {
    useConversion.setState({ chosen: object.id });
    openView('velocity');
  },
});
