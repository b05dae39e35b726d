// @vitest-environment happy-dom
import type { Well } from '@lithagon/core';
import { useTable } from '@tanstack/react-table';
import { act, renderHook } from '@testing-library/react';
import { expect, test } from 'vitest';
import { type Cells, cellsOf } from './rows';
import { columns, features, type Listed } from './table';

const well = (id: string, name: string, started: string) =>
  ({
    id,
    kind: 'well',
    name,
    revision: id,
    stage: 'wells',
    x: 0,
    y: 0,
    madeBy: { step: 'load.wells', started },
  }) as Well;
const objects = [
  well('a', 'QN-10', '2026-01-01T00:00:00Z'),
  well('b', 'QN-2', '2026-01-01T00:00:00Z'),
  well('c', 'QN-1', '2026-03-01T00:00:00Z'),
];
const cells = cellsOf(objects);
const data = objects.map((object): Listed => ({ object, cells: cells.get(object.id) as Cells }));

test('the catalogue takes numbers in names as numbers, and keeps what is alike in its order', () => {
  const { result } = renderHook(() => useTable({ features, columns, data, getRowId: (r: Listed) => r.object.id }));
  const order = (id: string, desc: boolean) => {
    act(() => result.current.setSorting([{ id, desc }]));
    return result.current.getRowModel().rows.map((row) => row.id);
  };
  expect(order('name', false)).toEqual(['c', 'b', 'a']);
  expect(order('name', true)).toEqual(['a', 'b', 'c']);
  expect(order('when', true)).toEqual(['c', 'a', 'b']);
  expect(data.map((r) => r.object.id)).toEqual(['a', 'b', 'c']);
});

test('sizes and dates begin with the largest and the newest', () => {
  const { result } = renderHook(() => useTable({ features, columns, data }));
  const first = (id: string) => result.current.getColumn(id)?.getFirstSortDir();
  expect([first('size'), first('when'), first('name')]).toEqual(['desc', 'desc', 'asc']);
});
