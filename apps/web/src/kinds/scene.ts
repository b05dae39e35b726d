import type { ArrayRef, CurveClass, Domain, EarthObject, QuantityMap } from '@lithagon/core';
import type * as THREE from 'three';
import type { ShownWell } from '../views/common/survey';
import type { Mix } from '../views/raster/mix';
import type { SceneFrame } from '../views/scene/planes';
import { bodiesInScene } from './bodies/inScene';
import { contactsInScene } from './contacts/inScene';
import { faultInScene } from './fault/inScene';
import { horizonInScene } from './horizon/inScene';
import { picksInScene } from './picks/inScene';
import { polygonInScene } from './polygon/inScene';
import { wellInScene } from './well/inScene';

/** What colours a surface: where its values lie, what they are, and between which they are coloured. */
export type Painting = Pick<QuantityMap, 'id' | 'revision' | 'binGrid' | 'quantity' | 'range'>;

/** What a layer of the scene is given. */
export interface SceneContext {
  frame: SceneFrame;
  domain: Domain;
  color: string;
  /** Values that the layer asked for, once they are read. */
  values: Float32Array | null;
  objects: EarthObject[];
  /** What a surface is coloured by, a map or a volume on it, once it is read. */
  paint: { map: Painting; values: Float32Array } | null;
  /** Blend that a surface is coloured by, of maps or of volumes on it, once they are read; the key stands for them. */
  blended: { mix: Mix; maps: Painting[]; fields: Float32Array[]; key: string } | null;
  /** Log that wells are drawn with, by its class. */
  log: CurveClass | null;
  well?: ShownWell;
  /** Corners of the survey on the map. */
  outline: [number, number][];
}

/** How a kind of object stands in the scene: fetched with the scene, since it needs the graphics library. */
export interface SceneLayer<O> {
  /** Values to read before it is built, where there are any. */
  values?(object: O, given: Pick<SceneContext, 'objects' | 'log'>): ArrayRef | undefined;
  build(object: O, context: SceneContext): THREE.Object3D[];
  /** What may change of what was built without building it again. */
  restyle?(group: THREE.Group, context: SceneContext): void;
  /** Where its name stands. */
  label?(object: O, context: SceneContext): [x: number, y: number, z: number] | null;
}

// biome-ignore lint/suspicious/noExplicitAny: layers of every type of object
const LAYERS: Partial<Record<EarthObject['kind'], SceneLayer<any>>> = {
  horizon: horizonInScene,
  fault: faultInScene,
  well: wellInScene,
  picks: picksInScene,
  polygon: polygonInScene,
  contacts: contactsInScene,
  bodies: bodiesInScene,
};

// biome-ignore lint/suspicious/noExplicitAny: layers of every type of object
export const sceneLayerOf = (object: EarthObject): SceneLayer<any> | undefined => LAYERS[object.kind];
