import { takeTool } from '../state/tool';

/** Begin to measure between two places of one view. */
export function beginMeasuring(): void {
  takeTool({ kind: 'measure', view: null, domain: 'twt', points: [] });
}
