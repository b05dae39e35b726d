import * as THREE from 'three';
import { fieldMaterial, fieldTexture, setField, setLook } from './field';
import type { Painter } from './quad';
import { drawInto } from './renderer';

/** Draws with the graphics card: samples are a texture, everything that a display change touches is a uniform. */
export function graphicsPainter(): Painter {
  const scene = new THREE.Scene();
  const geometry = new THREE.BufferGeometry();
  const position = new THREE.BufferAttribute(new Float32Array(12), 3);
  geometry.setAttribute('position', position);
  geometry.setAttribute('uv', new THREE.BufferAttribute(new Float32Array([0, 0, 1, 0, 1, 1, 0, 1]), 2));
  geometry.setIndex([0, 1, 2, 0, 2, 3]);
  const mesh = new THREE.Mesh(geometry, fieldMaterial());
  mesh.frustumCulled = false;
  scene.add(mesh);
  const camera = new THREE.OrthographicCamera(0, 1, 1, 0, -1, 1);
  let texture: THREE.DataTexture | null = null;
  let held: Float32Array | null = null;
  return {
    paint(canvas, quad, width, height) {
      if (held !== quad.data) {
        texture?.dispose();
        texture = fieldTexture(quad.data, quad.rows, quad.samples);
        setField(mesh.material, texture);
        held = quad.data;
      }
      for (let n = 0; n < 4; n++) position.setXYZ(n, quad.corners[2 * n], quad.corners[2 * n + 1], 0);
      position.needsUpdate = true;
      [camera.left, camera.right, camera.top, camera.bottom] = quad.window;
      camera.updateProjectionMatrix();
      setLook(mesh.material, quad.look);
      drawInto(canvas, scene, camera, width, height);
    },
    free() {
      texture?.dispose();
      geometry.dispose();
      mesh.material.dispose();
    },
  };
}
