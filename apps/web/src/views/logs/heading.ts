import { activeRelation, type EarthObject } from '@lithagon/core';
import { figure } from '../../ui/format';
import type { WellColumn } from './columns';

/** Facts that a heading may be made of. */
export function headingFacts(
  column: WellColumn,
  objects: EarthObject[],
  text: (m: number, unit: string) => string,
): Record<string, string> {
  const { well } = column;
  const tie = activeRelation(objects, well.name);
  return {
    status: well.status ?? '',
    'kelly bushing': `KB ${text(well.kbM, 'm')}`,
    'total depth': well.totalMdM ? `TD ${text(well.totalMdM, 'm MD')}` : '',
    position: `${well.x.toFixed(0)} E ${well.y.toFixed(0)} N`,
    tie: tie ? `tied, ${figure(tie.correlation, 2)}` : 'not tied',
    facies: column.facies ? column.facies.name : '',
    note: well.note?.split('\n')[0].slice(0, 40) ?? '',
  };
}
