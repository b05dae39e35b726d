import type { Points } from '@lithagon/core';
import { webKind } from '../define';
import { PointsOnMap } from './PointsOnMap';

export const points = webKind<Points>({ colored: true, layers: { map: PointsOnMap } });
