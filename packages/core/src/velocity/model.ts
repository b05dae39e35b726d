import type { BinGrid } from '../earth/binGrid.ts';
import type { VelocityCorrection } from '../earth/objects/depth.ts';
import {
  type Above,
  type Column,
  columnOf,
  type LayerHere,
  type VelocitySamples,
  type VelocityTrace,
} from './column.ts';
import { krige } from './kriging.ts';
import { type Law, scaled } from './law.ts';
import { between, type Nodes, valueAmong } from './nodes.ts';

/** Interval velocities that layers may go by: `[inline][crossline][sample]`, m/s. */
export interface VelocityCube {
  binGrid: BinGrid;
  domain: 'twt' | 'depth';
  first: number;
  step: number;
  count: number;
  samples: VelocitySamples;
  values: Float32Array;
}

export interface LayerParts {
  base: string;
  law: Law;
  /** TWT of the base at the nodes; null of one that goes on for ever. */
  times: Float32Array | null;
  v0Map: Float32Array | null;
  corrections: VelocityCorrection[];
  /** Whether its velocity was fitted to wells. */
  byWells?: boolean;
}

/** A velocity model as plain values and arrays, as they cross from one thread to another. */
export interface ModelParts {
  above: Above;
  nodes: Nodes | null;
  /** Depth at which layers begin, at the nodes; the datum where there is none. */
  seaBed: Float32Array | null;
  layers: LayerParts[];
  cube: VelocityCube | null;
  /** What one realization has besides; it stays in its thread. */
  errors?: ModelErrors;
}

/** Errors by place and layer: of the TWT of its base, ms, and of the logarithm of its velocity. */
export interface ModelErrors {
  time(x: number, y: number, layer: number): number;
  velocity(x: number, y: number, layer: number): number;
}

/** A velocity model that can be asked anywhere. */
export interface Model {
  parts: ModelParts;
  /** Names of the bases, from the top down. */
  bases: string[];
  /** Null where the model does not reach. */
  column(x: number, y: number): Column | null;
  /** The same in advance. */
  reaches(x: number, y: number): boolean;
}

/** Logarithm of the factor that corrections of a layer come to at a place. */
export function correctionAt(corrections: VelocityCorrection[]): (x: number, y: number) => number {
  const mean = corrections.reduce((sum, c) => sum + c.mean, 0);
  const each = corrections.map(({ points, rangeM, mean }) =>
    krige(
      points.map((p) => ({ ...p, value: p.value - mean })),
      rangeM,
    ),
  );
  return (x, y) => each.reduce((sum, at) => sum + at(x, y), mean);
}

export function modelOf(parts: ModelParts): Model {
  const { above, nodes, seaBed, layers, cube, errors } = parts;
  const corrections = layers.map((l) => (l.corrections.length > 0 ? correctionAt(l.corrections) : null));
  return {
    parts,
    bases: layers.map((l) => l.base),
    reaches(x, y) {
      if (nodes && !between(nodes, x, y)) return false;
      if (!cube || !layers.some((l) => l.law.form === 'velocity volume')) return true;
      const at = between({ binGrid: cube.binGrid }, x, y);
      return at?.nodes.some((n, m) => at.parts[m] > 0 && !Number.isNaN(cube.values[n * cube.count])) ?? false;
    },
    column(x, y) {
      const at = nodes ? between(nodes, x, y) : null;
      if (nodes && !at) return null;
      const trace = cube ? traceAt(cube, x, y) : null;
      const begins = seaBed && at ? valueAmong(seaBed, at) : -(above.datumM ?? 0);
      if (Number.isNaN(begins)) return null;
      const here: LayerHere[] = [];
      for (let n = 0; n < layers.length; n++) {
        const { law, times, v0Map } = layers[n];
        const base = times && at ? valueAmong(times, at) : Number.POSITIVE_INFINITY;
        if (Number.isNaN(base)) return null;
        const byVolume = law.form === 'velocity volume';
        if (byVolume && !trace) return null;
        const mapped = v0Map && at ? valueAmong(v0Map, at) : Number.NaN;
        const own = Number.isNaN(mapped) ? law : { ...law, v0: mapped };
        const factor = (corrections[n]?.(x, y) ?? 0) + (errors?.velocity(x, y, n) ?? 0);
        here.push({
          law: factor === 0 ? own : scaled(own, Math.exp(factor)),
          base: base + (errors?.time(x, y, n) ?? 0),
          ...(byVolume && trace ? { trace } : {}),
        });
      }
      return columnOf(begins, above, here);
    },
  };
}

/** Velocities of a cube at a place, bilinear between its traces and held for one bin beyond them; null outside. */
export function traceAt(
  { binGrid, domain, first, step, count, samples, values }: VelocityCube,
  x: number,
  y: number,
): VelocityTrace | null {
  const at = between({ binGrid }, x, y);
  if (!at) return null;
  const out = new Float64Array(count);
  let total = 0;
  for (let n = 0; n < at.nodes.length; n++) {
    const o = at.nodes[n] * count;
    // a trace that is not there has no velocities at all
    if (at.parts[n] === 0 || Number.isNaN(values[o])) continue;
    total += at.parts[n];
    for (let k = 0; k < count; k++) out[k] += at.parts[n] * values[o + k];
  }
  if (total === 0) return null;
  if (total < 1 - 1e-9) for (let k = 0; k < count; k++) out[k] /= total;
  return { values: out, domain, first, step, samples };
}
