import type { QuantityMap } from '@lithagon/core';
import { activeOf, changeSettings } from '../../state/views';
import { ClassCentres } from '../../workbench/sheet/ClassCentres';
import { GainCurve } from '../../workbench/sheet/GainCurve';
import { webKind } from '../define';

export const map = webKind<QuantityMap>({
  sheet: [ClassCentres, GainCurve],
  show: ({ id }) => changeSettings('map', activeOf('map'), { shows: id }),
});
