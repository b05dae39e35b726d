import type { Horizon } from '@lithagon/core';
import { trackBehind } from '../../actions/draw';
import { LINE_COLORS } from '../../color/maps';
import { useDesk } from '../../state/desk';
import { select } from '../../state/selection';
import { takeTool } from '../../state/tool';
import { Button } from '../../ui/Button';
import { webKind } from '../define';

function show(object: Horizon): void {
  useDesk.setState((s) => ({
    mapShows: object.id,
    domain: { ...s.domain, map: object.domain === 'depth' ? 'depth' : 'twt' },
  }));
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

export const horizon = webKind<Horizon>({
  // told apart by their turn among the horizons
  color: (object, objects) =>
    LINE_COLORS[objects.filter((o) => o.kind === 'horizon').indexOf(object) % LINE_COLORS.length],
  colored: true,
  actions: [Erase],
  show,
});
