import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { activeOf, changeSettings, goTo, JOINED, kindOfView, settingsOf } from '../state/views';
import { lookIn } from '../state/views/index';
import { indexAt, placeAt, shownLine, shownVolume } from '../views/common/survey';

/** Step a section by a number of its increments, or a map by slices; the one in front where none is named. */
export function stepLine(times: number, view = steppable()): void {
  const { objects } = useProject.getState();
  const kind = kindOfView(view) === 'map' ? 'map' : 'section';
  const settings = settingsOf(kind, view);
  const by = times * settings.increment;
  if ('line' in settings) {
    const flat = objects.filter((o) => o.kind === 'seismic line');
    if (settings.line === JOINED) return;
    const shown = shownLine(objects, settings);
    const at = shown ? flat.indexOf(shown) : -1;
    // 2D lines follow one another, whatever the increment
    if (at >= 0) {
      changeSettings('section', view, { line: flat[(at + Math.sign(times) + flat.length) % flat.length].id });
      return;
    }
    if (settings.along === 'path') return;
  }
  const desk = useDesk.getState();
  const volume = shownVolume(objects, settings.volume ?? desk.volume, settings.domain);
  if (!volume) return;
  const plane = 'along' in settings && settings.along !== 'path' ? settings.along : 'slice';
  goTo(view, placeAt(volume, plane, indexAt(volume, plane, lookIn(desk, view).place) + by));
}

/** The view that lines are stepped in: a map that shows slices where that is in front, else the last section. */
function steppable(): string {
  const { active } = useDesk.getState();
  const map = active !== null && kindOfView(active) === 'map' && settingsOf('map', active).shows === 'slice';
  return map && active !== null ? active : activeOf('section');
}
