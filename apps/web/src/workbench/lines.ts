import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { clampLine, shownVolume } from '../views/common/survey';

/** Step the section by a number of increments. */
export function stepLine(times: number): void {
  const { plane, lines, increment, volume: chosen } = useDesk.getState();
  const volume = shownVolume(useProject.getState().objects, chosen);
  if (!volume) return;
  useDesk.setState({
    lines: { ...lines, [plane]: clampLine(volume.lattice, plane, lines[plane] + times * increment) },
  });
}
