import type { ResultTable } from '@lithagon/core';
import { FaciesReport, isFaciesReport } from '../../workbench/sheet/FaciesReport';
import { ResultRows } from '../../workbench/sheet/ResultRows';
import { webKind } from '../define';

function Table({ object }: { object: ResultTable }) {
  return isFaciesReport(object) ? <FaciesReport table={object} /> : <ResultRows table={object} />;
}

export const resultTable = webKind<ResultTable>({ sheet: [Table] });
