import * as THREE from 'three';
import { drawing } from './drawing';

/**
 * One WebGL2 renderer for the whole window, since browsers allow few contexts: each view draws with it and copies the
 * picture into a canvas of its own. A lost context comes back by itself; views are asked to draw again.
 */
let renderer: THREE.WebGLRenderer | null = null;
const redraw = new Set<() => void>();

function shared(): THREE.WebGLRenderer {
  if (renderer) return renderer;
  const canvas = document.createElement('canvas');
  // smoothed edges take emulated graphics twice as long
  const antialias = drawing() === 'graphics card';
  renderer = new THREE.WebGLRenderer({ canvas, antialias, alpha: true, preserveDrawingBuffer: true });
  renderer.setPixelRatio(1);
  renderer.setClearColor(0x000000, 0);
  renderer.localClippingEnabled = true;
  canvas.addEventListener('webglcontextrestored', () => {
    for (const draw of redraw) draw();
  });
  return renderer;
}

/** Ask to be drawn again when the context comes back. @returns how to stop asking */
export function whenRestored(draw: () => void): () => void {
  redraw.add(draw);
  return () => redraw.delete(draw);
}

/** Draw a scene and copy it into a view's own canvas, `width` × `height` device pixels. */
export function drawInto(
  target: HTMLCanvasElement,
  scene: THREE.Scene,
  camera: THREE.Camera,
  width: number,
  height: number,
): void {
  if (width < 2 || height < 2) return;
  const gl = shared();
  const size = gl.getSize(new THREE.Vector2());
  if (size.x < width || size.y < height) gl.setSize(Math.max(size.x, width), Math.max(size.y, height), false);
  const tall = gl.domElement.height;
  gl.setViewport(0, 0, width, height);
  gl.setScissor(0, 0, width, height);
  gl.setScissorTest(true);
  gl.clear();
  gl.render(scene, camera);
  if (target.width !== width) target.width = width;
  if (target.height !== height) target.height = height;
  const context = target.getContext('2d');
  context?.clearRect(0, 0, width, height);
  context?.drawImage(gl.domElement, 0, tall - height, width, height, 0, 0, width, height);
}
