import { layeredField } from '@lithagon/core/testing/layeredField';
import * as THREE from 'three';
import { expect, test } from 'vitest';
import { makeCloud, transferRow } from './cloud';
import { cropPlanes, isWhole } from './crop';
import { sceneFrame, toScene } from './planes';
import { fenceGeometry } from './useFence';

test('opacity runs straight between its points, which may be given in any order', () => {
  const row = transferRow([
    [1, 1],
    [0, 0],
    [0.5, 0],
  ]);
  expect([row[0], row[127], row[255]]).toEqual([0, 0, 255]);
  expect(row[191]).toBeCloseTo(127, -1);
});

test('the box that is looked through lies on the survey, and the eye is told of in its own parts', async () => {
  const { seismic } = await layeredField();
  const frame = sceneFrame(seismic);
  const cloud = makeCloud(seismic, frame);
  const { origin } = seismic.binGrid;
  const corner = new THREE.Vector3(0, 0, 0).applyMatrix4(cloud.mesh.matrix);
  const first = toScene(frame, origin[0], origin[1], seismic.vertical.first);
  for (const [n, v] of corner.toArray().entries()) expect(v).toBeCloseTo(first[n], 5);
  const camera = new THREE.PerspectiveCamera();
  const middle = new THREE.Vector3(0.5, 0.5, 0.5).applyMatrix4(cloud.mesh.matrix);
  camera.position.copy(middle);
  camera.updateMatrixWorld();
  cloud.setView(camera, [0, 1, 0, 1, 0, 1], 10);
  for (const v of (cloud.mesh.material.uniforms.eye.value as THREE.Vector3).toArray()) expect(v).toBeCloseTo(0.5, 5);
});

test('a crop lies between six planes: its middle inside, what is beyond it outside', async () => {
  const { seismic } = await layeredField();
  const frame = sceneFrame(seismic);
  const planes = cropPlanes(seismic, frame, [0.25, 0.5, 0, 1, 0.1, 0.4], 3);
  const { binGrid, vertical } = seismic;
  const at = (i: number, j: number, k: number) => {
    const { origin, perInline: a, perCrossline: b } = binGrid;
    const [ni, nj] = [i * (binGrid.inline.count - 1), j * (binGrid.crossline.count - 1)];
    const [x, y, z] = toScene(
      frame,
      origin[0] + ni * a[0] + nj * b[0],
      origin[1] + ni * a[1] + nj * b[1],
      vertical.first + k * (vertical.count - 1) * vertical.step,
    );
    return new THREE.Vector3(x, 3 * y, z);
  };
  const inside = (p: THREE.Vector3) => planes.every((plane) => plane.distanceToPoint(p) > 0);
  expect(inside(at(0.3, 0.5, 0.2))).toBe(true);
  for (const out of [at(0.2, 0.5, 0.2), at(0.6, 0.5, 0.2), at(0.3, 0.5, 0.05), at(0.3, 0.5, 0.5), at(0.3, 1.1, 0.2)])
    expect(inside(out)).toBe(false);
  expect([isWhole([0, 1, 0, 1, 0, 1]), isWhole([0, 1, 0, 0.9, 0, 1])]).toEqual([true, false]);
});

test('a fence stands along its places from the first sample to the last', async () => {
  const { seismic } = await layeredField();
  const frame = sceneFrame(seismic);
  const places: [number, number][] = [
    [0, 0],
    [100, 50],
    [300, 50],
  ];
  const geometry = fenceGeometry(frame, seismic, places);
  const at = (n: number) => new THREE.Vector3().fromBufferAttribute(geometry.getAttribute('position'), n).toArray();
  const { first, step, count } = seismic.vertical;
  for (const [n, [x, y]] of places.entries())
    for (const [m, v] of [first, first + step * (count - 1)].entries())
      for (const [c, value] of toScene(frame, x, y, v).entries()) expect(at(2 * n + m)[c]).toBeCloseTo(value, 5);
  expect(geometry.getIndex()?.count).toBe(12);
  expect([...geometry.getAttribute('uv').array]).toEqual([0, 0, 1, 0, 0, 0.5, 1, 0.5, 0, 1, 1, 1]);
});
