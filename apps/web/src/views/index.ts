import type { ViewKind } from '../state/views';
import { catalogue } from './catalogue';
import { crossplot } from './crossplot';
import type { View } from './define';
import { logs } from './logs';
import { map } from './map';
import { net } from './net';
import { pay } from './pay';
import { scene } from './scene';
import { section } from './section';
import { spectrum } from './spectrum';
import { tie } from './tie';
import { velocity } from './velocity';

/** Views that a desk may hold, in the order in which they are offered. */
export const VIEWS: Record<ViewKind, View> = {
  section,
  map,
  scene,
  logs,
  tie,
  crossplot,
  spectrum,
  net,
  pay,
  velocity,
  catalogue,
};
