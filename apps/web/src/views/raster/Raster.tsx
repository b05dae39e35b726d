import type { Volume } from '@lithagon/core';
import { useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import type { PlaneState } from '../common/hooks';
import css from '../common/view.module.css';
import { type FieldLook, fieldMaterial, fieldTexture, setField, setLook } from './field';
import { drawInto, whenRestored } from './renderer';

/** The window of a section that is in view: traces and vertical. */
export interface Window {
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}

/** Samples of a section, drawn on the graphics card: a change of look or window draws again and computes nothing. */
export function Raster(props: {
  plane: PlaneState;
  traces: number;
  vertical: Volume['vertical'];
  look: FieldLook;
  window: Window;
  box: { left: number; top: number; width: number; height: number };
}) {
  const { plane, traces, vertical, look, window, box } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const picture = useMemo(() => {
    const scene = new THREE.Scene();
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(new Float32Array(12), 3));
    // samples run along the texture's x
    geometry.setAttribute('uv', new THREE.BufferAttribute(new Float32Array([0, 0, 0, 1, 1, 1, 1, 0]), 2));
    geometry.setIndex([0, 1, 2, 0, 2, 3]);
    const mesh = new THREE.Mesh(geometry, fieldMaterial());
    mesh.frustumCulled = false;
    scene.add(mesh);
    return { scene, mesh, camera: new THREE.OrthographicCamera(0, 1, 1, 0, -1, 1) };
  }, []);

  // before the drawing below, which it is for
  useLayoutEffect(() => {
    const texture = fieldTexture(plane.data, traces, vertical.count);
    setField(picture.mesh.material, texture);
    const { first, step, count } = vertical;
    const [top, bottom, right] = [-first, -(first + step * (count - 1)), traces - 1];
    const position = picture.mesh.geometry.getAttribute('position') as THREE.BufferAttribute;
    position.array.set([0, top, 0, right, top, 0, right, bottom, 0, 0, bottom, 0]);
    position.needsUpdate = true;
    return () => texture.dispose();
  }, [plane, traces, vertical, picture]);

  const draw = () => {
    if (!canvas.current) return;
    const started = performance.now();
    const scale = devicePixelRatio;
    const { camera } = picture;
    camera.left = window.x0;
    camera.right = window.x1;
    camera.top = -window.y0;
    camera.bottom = -window.y1;
    camera.updateProjectionMatrix();
    setLook(picture.mesh.material, look);
    drawInto(canvas.current, picture.scene, camera, Math.round(box.width * scale), Math.round(box.height * scale));
    canvas.current.dataset.plane = plane.key;
    canvas.current.dataset.drawMs = (performance.now() - started).toFixed(1);
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

  return (
    <canvas
      ref={canvas}
      className={css.canvas}
      data-testid="section-raster"
      style={{ left: box.left, top: box.top, width: box.width, height: box.height }}
    />
  );
}
