import type { SeismicLine } from '@lithagon/core';
import { activeOf, changeSettings } from '../../state/views';
import { DisplayForm } from '../../views/common/DisplayForm';
import { Crossings, Redeclare } from '../../workbench/sheet/ObjectEdits';
import { webKind } from '../define';
import { LineOnMap } from './OnMap';

export const line = webKind<SeismicLine>({
  colored: true,
  sheet: [({ object }) => <DisplayForm volume={object} />, Redeclare, ({ object }) => <Crossings line={object} />],
  show: (object) =>
    changeSettings('section', activeOf('section'), {
      line: object.id,
      domain: object.domain,
    }),
  layers: { map: { order: 20, Draw: LineOnMap } },
});
