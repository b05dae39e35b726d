import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { clampLine, shownVolume } from '../views/common/survey';

/** Step the section by a number of increments. */
export function stepLine(times: number): void {
  const { plane, lines, increment, volume: chosen, line } = useDesk.getState();
  const flat = useProject.getState().objects.filter((o) => o.kind === 'seismic line');
  const at = flat.findIndex((o) => o.id === line);
  if (at >= 0) {
    // 2D lines follow one another, whatever the increment
    useDesk.setState({ line: flat[(at + Math.sign(times) + flat.length) % flat.length].id });
    return;
  }
  const volume = shownVolume(useProject.getState().objects, chosen);
  if (!volume) return;
  useDesk.setState({
    lines: { ...lines, [plane]: clampLine(volume.binGrid, plane, lines[plane] + times * increment) },
  });
}
