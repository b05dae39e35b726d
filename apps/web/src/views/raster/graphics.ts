import * as THREE from 'three';
import { fieldMaterial, fieldTexture, mixMaterial, setField, setLook, sumMaterial } from './field';
import { setMix } from './mix';
import type { Painter, Quad } from './quad';
import { drawInto } from './renderer';

/** Draws with the graphics card: samples are a texture, everything that a display change touches is a uniform. */
export function graphicsPainter(): Painter {
  const scene = new THREE.Scene();
  const geometry = new THREE.BufferGeometry();
  const position = new THREE.BufferAttribute(new Float32Array(12), 3);
  geometry.setAttribute('position', position);
  geometry.setAttribute('uv', new THREE.BufferAttribute(new Float32Array([0, 0, 1, 0, 1, 1, 0, 1]), 2));
  geometry.setIndex([0, 1, 2, 0, 2, 3]);
  const plain = fieldMaterial();
  const mesh = new THREE.Mesh(geometry, plain);
  mesh.frustumCulled = false;
  scene.add(mesh);
  const camera = new THREE.OrthographicCamera(0, 1, 1, 0, -1, 1);
  let mixing: THREE.ShaderMaterial | null = null;
  let adding: THREE.ShaderMaterial | null = null;
  const held = new Map<Float32Array, THREE.DataTexture>();
  const textureOf = (data: Float32Array, { rows, samples }: Quad) => {
    const texture = held.get(data) ?? fieldTexture(data, rows, samples);
    held.set(data, texture);
    return texture;
  };
  return {
    paint(canvas, quad, width, height) {
      const fields = [quad.data, ...(quad.mix?.more ?? []), ...(quad.sum ? [quad.sum.second] : [])];
      for (const [data, texture] of held)
        if (!fields.includes(data)) {
          texture.dispose();
          held.delete(data);
        }
      const textures = fields.map((data) => textureOf(data, quad));
      if (quad.mix) {
        mixing ??= mixMaterial();
        setMix(mixing, quad.mix);
        const { second, third, fourth } = mixing.uniforms;
        second.value = textures[1];
        third.value = textures[2];
        fourth.value = textures[3] ?? textures[2];
      }
      if (quad.sum) {
        adding ??= sumMaterial();
        adding.uniforms.second.value = textures[1];
        adding.uniforms.weights.value.set(...quad.sum.weights);
        setLook(adding, quad.look);
      }
      mesh.material = (quad.mix && mixing) || (quad.sum && adding) || plain;
      setField(mesh.material as THREE.ShaderMaterial, textures[0]);
      for (let n = 0; n < 4; n++) position.setXYZ(n, quad.corners[2 * n], quad.corners[2 * n + 1], 0);
      position.needsUpdate = true;
      [camera.left, camera.right, camera.top, camera.bottom] = quad.window;
      camera.updateProjectionMatrix();
      setLook(plain, quad.look);
      drawInto(canvas, scene, camera, width, height);
    },
    free() {
      for (const texture of held.values()) texture.dispose();
      geometry.dispose();
      plain.dispose();
      mixing?.dispose();
      adding?.dispose();
    },
  };
}
