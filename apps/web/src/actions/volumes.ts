import type { Volume } from '@lithagon/core';
import { useDesk } from '../state/desk';
import { turnTo } from '../state/pages';
import { activeOf, changeSettings, kindOfView, settingsOf } from '../state/views';
import { uncover } from './blends';

/** Show a volume: in the view in front where that has a volume of its own, else in all views that show what the desk does. */
export function showVolume(volume: Volume): void {
  const { id, domain } = volume;
  turnTo(volume);
  uncover();
  const { active } = useDesk.getState();
  const [section, scene] = [activeOf('section'), activeOf('scene')];
  const own = { section: settingsOf('section', section).volume, scene: settingsOf('scene', scene).volume };
  const front = active !== null && kindOfView(active) === 'scene' ? 'scene' : 'section';
  if (own[front] !== null) {
    if (front === 'section') changeSettings('section', section, { volume: id, domain, line: null });
    else changeSettings('scene', scene, { volume: id, domain });
    return;
  }
  useDesk.setState({ volume: id });
  if (own.section === null) changeSettings('section', section, { domain, line: null });
  if (own.scene === null) changeSettings('scene', scene, { domain });
}
