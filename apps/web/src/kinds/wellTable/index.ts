import type { WellTable } from '@lithagon/core';
import { webKind } from '../define';
import { showInLogs } from '../showInLogs';

const inLogs = webKind<WellTable>({ show: showInLogs });

export const wellTables = {
  'directional surveys': webKind<WellTable>(),
  tops: inLogs,
  checkshots: webKind<WellTable>(),
  pressures: webKind<WellTable>(),
  'fluid samples': webKind<WellTable>(),
  'core points': webKind<WellTable>(),
  facies: inLogs,
};
