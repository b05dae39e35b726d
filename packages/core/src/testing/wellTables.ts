import type { EarthObject, Well, WellTable } from '../earth/objects.ts';
import { newTable } from '../project/wells/tops.ts';
import { MADE } from './objects.ts';

/** A vertical well with its kelly bushing 20 m above the sea. */
export const madeWell = (name: string): Well => ({
  id: name,
  kind: 'well',
  name,
  revision: 'w',
  stage: 'wells',
  x: 0,
  y: 0,
  kbM: 20,
  madeBy: MADE,
});

export const madeTops = (well: string, rows: WellTable['rows']): WellTable => ({
  ...newTable('tops', well),
  rows,
  id: `${well}-tops`,
});

/** Two wells, of which the first has three tops and a fault. */
export const project = (): EarthObject[] => [
  madeWell('A'),
  madeWell('B'),
  madeTops('A', [
    ['Upper', 500],
    ['Sand', 600],
    ['West Fault', 610],
    ['Lower', 700],
  ]),
];
