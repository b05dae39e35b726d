import { type RefObject, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { type FieldLook, fieldMaterial, fieldTexture, setField, setLook } from './field';
import { drawInto, whenRestored } from './renderer';

/** A grid of samples laid on four corners, and the part of the plane that is in view. */
export interface Quad {
  /** `[row][sample]`, samples along the texture's x. */
  data: Float32Array;
  rows: number;
  samples: number;
  /** x and y of sample 0 of row 0, its last sample, the last of the last row, the first of the last row. */
  corners: number[];
  /** left, right, top, bottom. */
  window: [number, number, number, number];
  look: FieldLook;
  width: number;
  height: number;
}

/** Draw a grid on the graphics card into a canvas: a change of look or window draws again and computes nothing. */
export function useQuad(quad: Quad): RefObject<HTMLCanvasElement | null> {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { data, rows, samples } = quad;
  const corners = quad.corners.join();
  const picture = useMemo(() => {
    const scene = new THREE.Scene();
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(new Float32Array(12), 3));
    geometry.setAttribute('uv', new THREE.BufferAttribute(new Float32Array([0, 0, 1, 0, 1, 1, 0, 1]), 2));
    geometry.setIndex([0, 1, 2, 0, 2, 3]);
    const mesh = new THREE.Mesh(geometry, fieldMaterial());
    mesh.frustumCulled = false;
    scene.add(mesh);
    return { scene, mesh, camera: new THREE.OrthographicCamera(0, 1, 1, 0, -1, 1) };
  }, []);
  // before the drawing below, which it is for
  useLayoutEffect(() => {
    const texture = fieldTexture(data, rows, samples);
    setField(picture.mesh.material, texture);
    return () => texture.dispose();
  }, [data, rows, samples, picture]);
  useLayoutEffect(() => {
    const at = corners.split(',').map(Number);
    const position = picture.mesh.geometry.getAttribute('position') as THREE.BufferAttribute;
    for (let n = 0; n < 4; n++) position.setXYZ(n, at[2 * n], at[2 * n + 1], 0);
    position.needsUpdate = true;
  }, [corners, picture]);
  const draw = () => {
    if (!canvas.current) return;
    const started = performance.now();
    const { camera, mesh, scene } = picture;
    [camera.left, camera.right, camera.top, camera.bottom] = quad.window;
    camera.updateProjectionMatrix();
    setLook(mesh.material, quad.look);
    const scale = devicePixelRatio;
    drawInto(canvas.current, scene, camera, Math.round(quad.width * scale), Math.round(quad.height * scale));
    canvas.current.dataset.drawMs = (performance.now() - started).toFixed(1);
  };
  // drawn again only where something that it shows has changed
  const { window, look, width, height } = quad;
  const state = `${corners} ${window.join()} ${JSON.stringify(look)} ${width} ${height}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the state stands for what is drawn
  useLayoutEffect(draw, [data, rows, samples, state, picture]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the newest drawing is asked for when the context returns
  useEffect(() => whenRestored(draw), []);
  useEffect(
    () => () => {
      picture.mesh.geometry.dispose();
      picture.mesh.material.dispose();
    },
    [picture],
  );
  return canvas;
}
