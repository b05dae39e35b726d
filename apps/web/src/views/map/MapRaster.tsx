import { type Lattice, toMap } from '@lithagon/core';
import { useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import type { Size } from '../common/hooks';
import css from '../common/view.module.css';
import { type FieldLook, fieldMaterial, fieldTexture, setField, setLook } from '../raster/field';
import { drawInto, whenRestored } from '../raster/renderer';
import type { MapFrame } from './frame';

/** A grid of values laid on the map where its bins are. */
export function MapRaster(props: {
  values: Float32Array;
  lattice: Lattice;
  look: FieldLook;
  frame: MapFrame;
  size: Size;
}) {
  const { values, lattice, look, frame, size } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const picture = useMemo(() => {
    const scene = new THREE.Scene();
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(new Float32Array(12), 3));
    // crosslines run along the texture's x, inlines along y
    geometry.setAttribute('uv', new THREE.BufferAttribute(new Float32Array([0, 0, 1, 0, 1, 1, 0, 1]), 2));
    geometry.setIndex([0, 1, 2, 0, 2, 3]);
    const mesh = new THREE.Mesh(geometry, fieldMaterial());
    mesh.frustumCulled = false;
    scene.add(mesh);
    return { scene, mesh, camera: new THREE.OrthographicCamera(0, 1, 1, 0, -1, 1) };
  }, []);
  // before the drawing below, which it is for
  useLayoutEffect(() => {
    const [ni, nj] = [lattice.inline.count, lattice.crossline.count];
    const texture = fieldTexture(values, ni, nj);
    setField(picture.mesh.material, texture);
    // float32 positions: measured from the first corner
    const corner = (i: number, j: number) => {
      const [x, y] = toMap(lattice, i, j);
      return [x - lattice.origin[0], y - lattice.origin[1], 0];
    };
    const position = picture.mesh.geometry.getAttribute('position') as THREE.BufferAttribute;
    position.array.set([...corner(0, 0), ...corner(0, nj - 1), ...corner(ni - 1, nj - 1), ...corner(ni - 1, 0)]);
    position.needsUpdate = true;
    return () => texture.dispose();
  }, [values, lattice, picture]);
  const draw = () => {
    if (!canvas.current) return;
    const { camera } = picture;
    const [cx, cy] = [frame.x - lattice.origin[0], frame.y - lattice.origin[1]];
    camera.left = cx - (size.width / 2) * frame.perPixel;
    camera.right = cx + (size.width / 2) * frame.perPixel;
    camera.top = cy + (size.height / 2) * frame.perPixel;
    camera.bottom = cy - (size.height / 2) * frame.perPixel;
    camera.updateProjectionMatrix();
    setLook(picture.mesh.material, look);
    drawInto(
      canvas.current,
      picture.scene,
      camera,
      Math.round(size.width * devicePixelRatio),
      Math.round(size.height * devicePixelRatio),
    );
  };
  useLayoutEffect(draw);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the newest drawing is asked for when the context returns
  useEffect(() => whenRestored(draw), []);
  useEffect(
    () => () => {
      picture.mesh.geometry.dispose();
      picture.mesh.material.dispose();
    },
    [picture],
  );
  return <canvas ref={canvas} className={css.canvas} style={{ width: size.width, height: size.height }} />;
}
