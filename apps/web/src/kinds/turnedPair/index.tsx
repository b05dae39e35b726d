import type { TurnedPair } from '@lithagon/core';
import { showPair } from '../../actions/blends';
import { webKind } from '../define';
import { TurnSheet } from './TurnSheet';

export const turnedPair = webKind<TurnedPair>({
  sheet: [TurnSheet],
  sheetIsAll: true,
  show: showPair,
});
