import { bytesOf } from '@lithagon/core';
import { useProject } from '../../state/project';
import { noteProject } from '../../storage/projects';

const [W, H] = [144, 90];

/** A small picture of the section as it stands, for the list of projects; none where there is no section. */
function portrait(): string | undefined {
  const canvas = document.querySelector<HTMLCanvasElement>('[data-testid="section-raster"]');
  if (!canvas || canvas.width === 0) return undefined;
  const small = document.createElement('canvas');
  [small.width, small.height] = [W, H];
  small.getContext('2d')?.drawImage(canvas, 0, 0, W, H);
  return small.toDataURL('image/jpeg', 0.7);
}

/** Keep what the project looks like and holds, now and then and when the tab is left. */
export function keepPortrait(): () => void {
  const note = () => {
    const { id, objects } = useProject.getState();
    const picture = portrait();
    void noteProject(id, {
      objects: objects.length,
      bytes: objects.reduce((n, o) => n + bytesOf(o), 0),
      ...(picture ? { picture } : {}),
    });
  };
  // what it holds is noted as it changes: a tab that is closed may have no time left for it
  const forget = useProject.subscribe((now, before) => {
    if (now.objects !== before.objects) note();
  });
  const timer = setInterval(note, 15_000);
  const first = setTimeout(note, 3_000);
  addEventListener('pagehide', note);
  return () => {
    forget();
    clearInterval(timer);
    clearTimeout(first);
    removeEventListener('pagehide', note);
  };
}
