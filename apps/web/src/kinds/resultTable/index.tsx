import type { ResultTable } from '@lithagon/core';
import { FaciesReport, isFaciesReport } from '../../workbench/sheet/FaciesReport';
import { ResultRows } from '../../workbench/sheet/ResultRows';
import { webKind } from '../define';
import { OnTheMap, TableOnMap } from './OnMap';
import { isVariogram, VariogramChart } from './VariogramChart';
import { WedgeReport } from './WedgeReport';

function Table({ object }: { object: ResultTable }) {
  if (isFaciesReport(object)) return <FaciesReport table={object} />;
  return (
    <>
      {isVariogram(object) && <VariogramChart table={object} />}
      {object.madeBy.step === 'invert.wedge' && <WedgeReport table={object} />}
      <ResultRows table={object} />
    </>
  );
}

export const resultTable = webKind<ResultTable>({
  sheet: [Table],
  actions: [OnTheMap],
  // a table comes onto the map where it is put there
  layers: { map: { order: 62, Draw: TableOnMap, asked: () => true } },
});
