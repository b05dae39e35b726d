import type { Points } from '@lithagon/core';
import { webKind } from '../define';
import { PointsOnMap } from './OnMap';

export const points = webKind<Points>({ colored: true, layers: { map: { order: 35, Draw: PointsOnMap } } });
