import { toIndex, type Well } from '@lithagon/core';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { clampLine, shownVolume } from '../../views/common/survey';
import { INK, webKind } from '../define';

export const well = webKind<Well>({
  color: INK,
  show(object) {
    const desk = useDesk.getState();
    const volume = shownVolume(useProject.getState().objects, desk.volume);
    if (!volume) return;
    const [i, j] = toIndex(volume.binGrid, object.x, object.y);
    useDesk.setState({
      lines: {
        ...desk.lines,
        inline: clampLine(volume.binGrid, 'inline', i),
        crossline: clampLine(volume.binGrid, 'crossline', j),
      },
    });
  },
});
