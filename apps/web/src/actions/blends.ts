import type { Blend, TurnedPair } from '@lithagon/core';
import { useProject } from '../state/project';
import { activeOf, changeSettings, settingsOf } from '../state/views';

/** Show a turned pair over the seismic of a section. */
export const showPair = ({ id }: TurnedPair): void =>
  changeSettings('section', activeOf('section'), { over: { volume: id, opacity: 1 } });

/** Take a turned pair off the section, so that a volume that is to be shown is seen. */
export function uncover(): void {
  const view = activeOf('section');
  const over = settingsOf('section', view).over?.volume;
  if (over && useProject.getState().byId.get(over)?.kind === 'turned pair')
    changeSettings('section', view, { over: null });
}

/** Show a blend: of maps on the map, of volumes over the seismic of a section. */
export function showBlend({ id, of }: Blend): void {
  if (of === 'map') changeSettings('map', activeOf('map'), { shows: id });
  else changeSettings('section', activeOf('section'), { over: { volume: id, opacity: 1 } });
}
