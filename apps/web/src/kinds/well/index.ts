import type { Domain, Well } from '@lithagon/core';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { activeOf, changeSettings, goTo, settingsOf } from '../../state/views';
import { placeOver, type ShownWell, shownVolume } from '../../views/common/survey';
import { INK, webKind } from '../define';
import { WellOnMap } from './OnMap';
import { WellOnSection } from './OnSection';

const untimed = (_: Well, domain: Domain, well?: ShownWell) =>
  domain === 'age'
    ? 'has no place by age'
    : domain === 'twt' && well && !well.points.some((p) => Number.isFinite(p[3]))
      ? 'has no checkshots or tie that give it time, and no velocity model reaches it'
      : null;

export const well = webKind<Well>({
  color: INK,
  show(object) {
    const section = activeOf('section');
    const settings = settingsOf('section', section);
    const volume = shownVolume(
      useProject.getState().objects,
      settings.volume ?? useDesk.getState().volume,
      settings.domain,
    );
    if (!volume) return;
    // a line of one's own or a 2D line does not pass just any well
    if (settings.line || settings.along === 'path')
      changeSettings('section', section, { line: null, along: settings.along === 'path' ? 'inline' : settings.along });
    goTo(section, placeOver(volume, object.x, object.y));
  },
  layers: {
    map: { order: 60, Draw: WellOnMap },
    section: { order: 50, Draw: WellOnSection, missing: untimed },
    scene: { order: 50, missing: untimed },
  },
});
