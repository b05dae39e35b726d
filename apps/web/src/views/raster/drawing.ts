import { create } from 'zustand';

/** What draws sections and maps. */
export type Drawing = 'graphics card' | 'processor';

/** Names under which browsers report graphics that are emulated by the processor. */
const EMULATED = /swiftshader|llvmpipe|softpipe|software|basic render/i;

/** The processor where there is no WebGL2, or only an emulated one. */
function usual(): Drawing {
  const gl = document.createElement('canvas').getContext('webgl2');
  if (!gl) return 'processor';
  const facts = gl.getExtension('WEBGL_debug_renderer_info');
  const name = String(gl.getParameter(facts ? facts.UNMASKED_RENDERER_WEBGL : gl.RENDERER));
  gl.getExtension('WEBGL_lose_context')?.loseContext();
  return EMULATED.test(name) ? 'processor' : 'graphics card';
}

const KEY = 'lithagon-drawing';
const useChosen = create<{ with: Drawing | null }>(() => ({ with: null }));
let found: Drawing | null = null;

/** What draws here: chosen by the person, else found out once. */
export function drawing(): Drawing {
  const chosen = useChosen.getState().with ?? localStorage.getItem(KEY);
  if (chosen === 'graphics card' || chosen === 'processor') return chosen;
  found ??= usual();
  return found;
}

export function useDrawing(): Drawing {
  return useChosen((s) => s.with) ?? drawing();
}

/** Go over to the other; kept on this machine. */
export function switchDrawing(): void {
  const next: Drawing = drawing() === 'processor' ? 'graphics card' : 'processor';
  localStorage.setItem(KEY, next);
  useChosen.setState({ with: next });
}
