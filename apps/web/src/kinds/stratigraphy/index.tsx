import type { Stratigraphy } from '@lithagon/core';
import { StratigraphyEditor } from '../../workbench/sheet/StratigraphyEditor';
import { webKind } from '../define';

export const stratigraphy = webKind<Stratigraphy>({
  sheet: [({ object }) => <StratigraphyEditor column={object} />],
  sheetIsAll: true,
});
