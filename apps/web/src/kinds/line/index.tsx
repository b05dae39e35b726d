import type { SeismicLine } from '@lithagon/core';
import { useDesk } from '../../state/desk';
import { DisplayForm } from '../../workbench/sheet/DisplayForm';
import { Crossings, Redeclare } from '../../workbench/sheet/ObjectEdits';
import { webKind } from '../define';
import { LineOnMap } from './LineOnMap';

export const line = webKind<SeismicLine>({
  colored: true,
  sheet: [({ object }) => <DisplayForm volume={object} />, Redeclare, ({ object }) => <Crossings line={object} />],
  show: (object) =>
    useDesk.setState((s) => ({
      line: object.id,
      domain: { ...s.domain, section: object.domain === 'depth' ? 'depth' : 'twt' },
    })),
  layers: { map: LineOnMap },
});
