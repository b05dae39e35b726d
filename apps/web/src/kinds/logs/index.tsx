import type { Logs } from '@lithagon/core';
import { CurveClasses } from '../../workbench/sheet/ObjectEdits';
import { webKind } from '../define';
import { showInLogs } from '../showInLogs';

export const logs = webKind<Logs>({
  sheet: [({ object }) => <CurveClasses logs={object} />],
  show: showInLogs,
});
