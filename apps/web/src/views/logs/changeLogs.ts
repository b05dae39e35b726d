import { useDesk } from '../../state/desk';
import type { LogsDesk } from '../../state/logsTemplate';

/** Change how the panel stands. */
export const changeLogs = (change: Partial<LogsDesk>) => useDesk.setState((s) => ({ logs: { ...s.logs, ...change } }));
