import type { EarthObject } from '@lithagon/core';
import { toast } from 'sonner';
import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { changeContents, changeSettings, kindOfView, settingsOf, titleOf } from '../state/views';
import { viewIn } from '../state/views/index';
import { type Layered, layersOf, rowsOf, withRow } from '../views/common/contents';
import { shownLine, shownVolume } from '../views/common/survey';

/** Views that hold a list of objects. */
export const isLayered = (kind: string | undefined): kind is Layered =>
  kind === 'section' || kind === 'map' || kind === 'scene';

/** Whether an object is what a view shows under all else: a volume, a slice, a surface. */
function isGround(view: string, kind: Layered, object: EarthObject): boolean {
  if (object.kind === 'volume') return kind === 'scene' || kind === 'section' || kind === 'map';
  if (object.kind === 'seismic line') return kind === 'section';
  return kind === 'map' && (object.kind === 'horizon' || object.kind === 'map') && view !== '';
}

function showGround(view: string, kind: Layered, object: EarthObject): void {
  const domain = 'domain' in object && object.domain ? object.domain : 'twt';
  if (kind === 'section')
    changeSettings(
      'section',
      view,
      object.kind === 'seismic line' ? { line: object.id, domain } : { volume: object.id, line: null, domain },
    );
  else if (kind === 'scene') changeSettings('scene', view, { volume: object.id, domain });
  else if (object.kind === 'volume') changeSettings('map', view, { volume: object.id, shows: 'slice', domain });
  else changeSettings('map', view, { shows: object.id, ...('domain' in object ? { domain } : {}) });
}

const rowsIn = (view: string, kind: Layered) => {
  const { objects } = useProject.getState();
  const { contents } = viewIn(useDesk.getState(), view);
  const { domain } = settingsOf(kind, view);
  return { contents, rows: rowsOf(contents, objects, layersOf(kind), domain, []) };
};

/** The ground of a view, by id: its volume, 2D line, horizon or map. */
function groundOf(view: string, kind: Layered): string | null {
  const settings = settingsOf(kind, view);
  if ('line' in settings && settings.line) return shownLine(useProject.getState().objects, settings)?.id ?? null;
  if ('shows' in settings && settings.shows !== null && settings.shows !== 'slice') return settings.shows;
  const chosen = settings.volume ?? useDesk.getState().volume;
  return shownVolume(useProject.getState().objects, chosen, settings.domain)?.id ?? null;
}

/** Objects that are seen in a view: open in its list, or its ground. */
export function seenIn(view: string): Set<string> {
  const kind = kindOfView(view);
  if (!isLayered(kind)) return new Set();
  const seen = new Set(rowsIn(view, kind).rows.flatMap((r) => (r.eye ? [r.id] : [])));
  const ground = groundOf(view, kind);
  if (ground) seen.add(ground);
  return seen;
}

/** Whether a view of a kind could show an object at all. */
export const canShow = (view: string, object: EarthObject): boolean => {
  const kind = kindOfView(view);
  return isLayered(kind) && (isGround(view, kind, object) || layersOf(kind)(object) !== undefined);
};

/** Show an object in a view: as its ground, or on top of its list. */
export function showIn(view: string, kind: Layered, object: EarthObject): void {
  if (isGround(view, kind, object)) {
    showGround(view, kind, object);
    return;
  }
  if (!layersOf(kind)(object)) {
    toast(`${object.name} cannot be drawn in a ${kind}. Nothing was changed.`);
    return;
  }
  const { contents, rows } = rowsIn(view, kind);
  changeContents(view, withRow(rows, contents, object.id, { eye: true }));
  const row = rowsIn(view, kind).rows.find((r) => r.id === object.id);
  if (row?.why) toast(`${object.name} is in the list of ${titleOf(view)}, but ${row.why}.`);
}

/** Show an object in a view, or hide it there. */
export function toggleIn(view: string, object: EarthObject): void {
  const kind = kindOfView(view);
  if (!isLayered(kind)) return;
  if (!seenIn(view).has(object.id)) {
    showIn(view, kind, object);
    return;
  }
  if (isGround(view, kind, object)) {
    if (kind === 'map') changeSettings('map', view, { shows: 'none' });
    if (kind === 'section' && object.kind === 'seismic line') changeSettings('section', view, { line: null });
    return;
  }
  const { contents, rows } = rowsIn(view, kind);
  changeContents(view, withRow(rows, contents, object.id, { eye: false }));
}

/** Show or hide several objects of a view's list at once. */
export function setEyes(view: string, objects: EarthObject[], eye: boolean): void {
  const kind = kindOfView(view);
  if (!isLayered(kind)) return;
  for (const object of objects) {
    const { contents, rows } = rowsIn(view, kind);
    changeContents(view, withRow(rows, contents, object.id, { eye }));
  }
}
