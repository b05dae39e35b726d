import type { TurnedPair } from '@lithagon/core';
import { activeOf, changeSettings } from '../../state/views';
import { TurnSheet } from '../../views/turn/TurnSheet';
import { webKind } from '../define';

export const turnedPair = webKind<TurnedPair>({
  sheet: [TurnSheet],
  sheetIsAll: true,
  show: ({ id }) => changeSettings('section', activeOf('section'), { over: { volume: id, opacity: 1 } }),
});
