import type { LogsDesk } from '../../state/logsTemplate';
import { activeOf, changeSettings } from '../../state/views';

/** Change how the panel stands that is or was last in front. */
export const changeLogs = (change: Partial<LogsDesk>) => changeSettings('logs', activeOf('logs'), change);
