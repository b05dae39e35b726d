import type { PlotClass } from '@lithagon/core';
import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { select } from '../state/selection';
import { activeOf, changeSettings } from '../state/views';
import { runQuietly } from './steps';

/** Give every sample of the volumes of a crossplot, or every bin of its maps, the class that it lies in. Of volumes it is kept live. */
export async function applyClasses(to: 'volumes' | 'maps', classes: PlotClass[]): Promise<void> {
  const [first] = classes;
  // what any of them is limited by is read with the axes
  const further = [...new Set(classes.flatMap((c) => (c.limits ?? []).map((l) => l.of)))];
  const { byId } = useProject.getState();
  const names = classes.map((c) => c.name).join(', ');
  const [made] =
    (await runQuietly({
      step: to === 'maps' ? 'attributes.plotClassMap' : 'attributes.plotClass',
      inputs: {
        x: [first.x.of],
        y: [first.y.of],
        ...(further[0] ? { third: [further[0]] } : {}),
        ...(further[1] ? { fourth: [further[1]] } : {}),
        classes: classes.map((c) => c.id),
      },
      params: {},
      name: `${names} of ${byId.get(first.x.of)?.name ?? 'a crossplot'}`.slice(0, 190),
      live: to === 'volumes',
    })) ?? [];
  if (!made) return;
  select(made);
  if (to === 'maps') changeSettings('map', activeOf('map'), { shows: made });
  else useDesk.setState({ volume: made, stage: 'attributes' });
}
