import { useEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { STANDS, type Stand } from './SceneMenu';

/** Opening of the perspective, degrees. */
const OPENING = 34;
const TARGET = new THREE.Vector3(0, -0.15, 0);

/** Where one stands to see all of a radius, and a little beside it. */
const from = (stand: Stand, radius: number) =>
  new THREE.Vector3(...STANDS[stand]).setLength((1.08 * radius) / Math.sin((OPENING * Math.PI) / 360));

/** The camera of a scene, in perspective or not, and what turns it. */
export function useCameras(
  element: HTMLElement | null,
  perspective: boolean,
  /** Radius of what is looked at, scene kilometres. */
  radius: number,
  redraw: () => void,
) {
  const cameras = useMemo(
    () => ({
      perspective: new THREE.PerspectiveCamera(OPENING, 1, 0.1, 100),
      parallel: new THREE.OrthographicCamera(-1, 1, 1, -1, -50, 100),
    }),
    [],
  );
  const camera = perspective ? cameras.perspective : cameras.parallel;
  const controls = useRef<OrbitControls | null>(null);
  const place = useRef({ at: from('Oblique', radius), target: TARGET.clone() });
  const latest = useRef(redraw);
  latest.current = redraw;
  useEffect(() => {
    if (!element) return;
    const orbit = new OrbitControls(camera, element);
    orbit.mouseButtons = { LEFT: THREE.MOUSE.ROTATE, MIDDLE: THREE.MOUSE.PAN, RIGHT: THREE.MOUSE.ROTATE };
    orbit.maxPolarAngle = Math.PI * 0.62;
    camera.position.copy(place.current.at);
    orbit.target.copy(place.current.target);
    orbit.update();
    orbit.addEventListener('change', () => {
      place.current = { at: camera.position.clone(), target: orbit.target.clone() };
      latest.current();
    });
    controls.current = orbit;
    latest.current();
    return () => orbit.dispose();
  }, [camera, element]);
  return {
    camera,
    controls,
    /** Fit the camera to a view's shape. */
    shape(aspect: number) {
      if (camera instanceof THREE.PerspectiveCamera) camera.aspect = aspect;
      else {
        const far = camera.position.distanceTo(place.current.target);
        const half = far * Math.tan((OPENING * Math.PI) / 360);
        [camera.left, camera.right, camera.top, camera.bottom] = [-half * aspect, half * aspect, half, -half];
      }
      camera.updateProjectionMatrix();
    },
    stand(stand: Stand) {
      camera.position.copy(from(stand, radius));
      camera.zoom = 1;
      controls.current?.target.copy(TARGET);
      controls.current?.update();
      latest.current();
    },
  };
}
