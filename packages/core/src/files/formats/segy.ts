import { looksLikeSegy } from '../../formats/segy/sniff.ts';
import { inspectSegy } from '../segy/inspect.ts';
import { objectsOfSegy } from '../segy/load.ts';
import { defineFormat } from './define.ts';

export const segy = defineFormat({
  name: 'SEG-Y',
  sniff: ({ bytes, source, extension }) =>
    ['sgy', 'segy'].includes(extension) ? 9 : looksLikeSegy(bytes, source.size) ? 7 : 0,
  inspect: async (source, declare, { around, beside, signal, onProgress }) =>
    (await inspectSegy([source, ...beside], declare, around, signal, onProgress)).report,
  load: objectsOfSegy,
});
