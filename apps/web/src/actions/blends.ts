import type { Blend } from '@lithagon/core';
import { activeOf, changeSettings } from '../state/views';

/** Show a blend: of maps on the map, of volumes over the seismic of a section. */
export function showBlend({ id, of }: Blend): void {
  if (of === 'map') changeSettings('map', activeOf('map'), { shows: id });
  else changeSettings('section', activeOf('section'), { over: { volume: id, opacity: 1 } });
}
