import type { VelocityModel } from '@lithagon/core';
import { webKind } from '../define';

export const velocityModel = webKind<VelocityModel>();
