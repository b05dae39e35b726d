import type { Blend } from '@lithagon/core';
import { showBlend } from '../../actions/blends';
import { BlendSheet } from '../../views/blend/BlendSheet';
import { webKind } from '../define';

export const blend = webKind<Blend>({ sheet: [BlendSheet], sheetIsAll: true, show: showBlend });
