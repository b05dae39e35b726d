import type { EarthObject } from '@lithagon/core';
import {
  createColumnHelper,
  createSortedRowModel,
  rowSelectionFeature,
  rowSortingFeature,
  type SortFn,
  tableFeatures,
} from '@tanstack/react-table';
import type { Cells, Column } from './rows';

const collator = new Intl.Collator('en', { numeric: true });

/** Numbers in names are taken as numbers; those alike keep their order. */
const asRead: SortFn<typeof features, Listed> = (a, b, column) => {
  const [x, y] = [a.getValue(column), b.getValue(column)];
  return typeof x === 'number' && typeof y === 'number' ? x - y : collator.compare(String(x), String(y));
};

export const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  rowSelectionFeature,
});

/** An object with what it shows in each column. */
export interface Listed {
  object: EarthObject;
  cells: Cells;
}

const column = createColumnHelper<typeof features, Listed>();
const LABELS: Record<Column, string> = {
  name: 'Name',
  kind: 'Kind',
  about: 'About',
  from: 'Made by',
  tags: 'Tags',
  size: 'Size',
  when: 'When',
};

export const columns = column.columns(
  (Object.keys(LABELS) as Column[]).map((key) =>
    column.accessor((row) => row.cells[key], {
      id: key,
      header: LABELS[key],
      sortFn: asRead,
      // the largest and the newest first
      sortDescFirst: key === 'size' || key === 'when',
    }),
  ),
);
