import type { PlotClass } from '@lithagon/core';
import { webKind } from '../define';

export const plotClass = webKind<PlotClass>();
