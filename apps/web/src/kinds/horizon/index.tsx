import { type Domain, type EarthObject, type Horizon, type Stratigraphy, withSurface } from '@lithagon/core';
import { trackBehind } from '../../actions/draw';
import { LINE_COLORS } from '../../color/maps';
import { edit } from '../../state/history';
import { behindPage, seriesOf, turnTo } from '../../state/pages';
import { useProject } from '../../state/project';
import { select } from '../../state/selection';
import { takeTool } from '../../state/tool';
import { activeOf, changeSettings } from '../../state/views';
import { Button } from '../../ui/Button';
import { standsFor } from '../../views/common/survey';
import { turnable, webKind } from '../define';
import { HorizonOnSection } from './OnSection';

function show(object: Horizon): void {
  if (seriesOf(object, useProject.getState().objects).length > 0) turnTo(object);
  changeSettings('map', activeOf('map'), { shows: object.id, domain: object.domain });
}

function Erase({ object }: { object: Horizon }) {
  if (!trackBehind(object)) return null;
  return (
    <Button
      onClick={() => {
        select(object.id);
        show(object);
        takeTool({ kind: 'erase', horizon: object.id, ring: [] });
      }}
    >
      Erase a part…
    </Button>
  );
}

/** Puts a horizon into the order of the rocks, where that does not hold it yet. */
function KeepInColumn({ object }: { object: Horizon }) {
  const objects = useProject((s) => s.objects);
  const column = objects.find((o): o is Stratigraphy => o.kind === 'stratigraphic column');
  if (!column || column.units.some((u) => u.top === (object.top ?? object.name))) return null;
  return (
    <Button
      onClick={() => void edit(`Take ${object.name} into the column`, [column], [withSurface(objects, column, object)])}
    >
      Take into the stratigraphic column
    </Button>
  );
}

const LAYER = {
  order: 40,
  missing: (object: Horizon, domain: Domain) =>
    turnable(object, domain) ?? behindPage(object, useProject.getState().objects),
  // a horizon that was closed stands for the tracked one that it was made from
  asked: (object: Horizon, objects: EarthObject[]) => standsFor(objects).has(object.id),
};

export const horizon = webKind<Horizon>({
  // told apart by their turn among the horizons
  color: (object, objects) =>
    LINE_COLORS[objects.filter((o) => o.kind === 'horizon').indexOf(object) % LINE_COLORS.length],
  colored: true,
  actions: [Erase, KeepInColumn],
  show,
  layers: { section: { ...LAYER, Draw: HorizonOnSection }, scene: LAYER },
});
