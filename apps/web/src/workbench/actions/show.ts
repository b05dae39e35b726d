import { type EarthObject, toIndex } from '@lithagon/core';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { select } from '../../state/selection';
import { clampLine, shownVolume } from '../../views/common/survey';
import { openView } from '../desk/dock';

/** Open an object in the view that fits it. */
export function showObject(object: EarthObject): void {
  select(object.id);
  const desk = useDesk.getState();
  switch (object.kind) {
    case 'seismic line':
      useDesk.setState({
        line: object.id,
        domain: { ...desk.domain, section: object.domain === 'depth' ? 'depth' : 'twt' },
      });
      break;
    case 'volume':
      useDesk.setState({
        volume: object.id,
        line: null,
        domain: {
          ...desk.domain,
          section: object.domain === 'depth' ? 'depth' : 'twt',
          scene: object.domain === 'depth' ? 'depth' : 'twt',
        },
      });
      break;
    case 'time-depth relation':
      openView('tie');
      break;
    case 'logs':
    case 'tops':
    case 'facies': {
      const well = useProject.getState().objects.find((o) => o.kind === 'well' && o.name === object.well);
      if (well && !desk.logs.wells.includes(well.id))
        useDesk.setState({ logs: { ...desk.logs, wells: [...desk.logs.wells, well.id] } });
      openView('logs');
      break;
    }
    case 'map':
      useDesk.setState({ mapShows: object.id });
      break;
    case 'horizon':
      useDesk.setState({
        mapShows: object.id,
        domain: { ...desk.domain, map: object.domain === 'depth' ? 'depth' : 'twt' },
      });
      break;
    case 'well': {
      const volume = shownVolume(useProject.getState().objects, desk.volume);
      if (!volume) return;
      const [i, j] = toIndex(volume.lattice, object.x, object.y);
      useDesk.setState({
        lines: {
          ...desk.lines,
          inline: clampLine(volume.lattice, 'inline', i),
          crossline: clampLine(volume.lattice, 'crossline', j),
        },
      });
      break;
    }
    default:
  }
}
