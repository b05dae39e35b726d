import type { TurnedPair } from '@lithagon/core';
import { showPair } from '../../actions/blends';
import { TurnSheet } from '../../views/turn/TurnSheet';
import { webKind } from '../define';

export const turnedPair = webKind<TurnedPair>({
  sheet: [TurnSheet],
  sheetIsAll: true,
  show: showPair,
});
