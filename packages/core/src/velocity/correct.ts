import type { VelocityCorrection } from '../earth/objects/depth.ts';
import { heed } from '../numerics/stop.ts';
import { type ModelParts, modelOf } from './model.ts';

/** A top of a well: depth (m) at which it meets the base of a layer. */
export interface Tie {
  well: string;
  layer: number;
  x: number;
  y: number;
  z: number;
}

/** A top with what a model makes of it. */
export interface Residual extends Tie {
  /** Depth by the model, m; NaN where it does not reach. */
  made: number;
}

/** How far a well is heard, and what holds where none is. */
export interface Spread {
  /** m, at which what a well says has faded. */
  rangeM: number;
  far: (typeof FAR)[number];
}

export const FAR = ['by how it was made', 'mean of the wells', 'the model as it was'] as const;

/** Whether what wells say on the mean holds far from them: of a layer that was not made by wells. */
const shifted = ({ layers }: ModelParts, layer: number, { far }: Spread) =>
  far === 'mean of the wells' || (far === 'by how it was made' && !layers[layer].byWells);

const meanOf = ({ points }: VelocityCorrection) =>
  points.length > 0 ? points.reduce((sum, p) => sum + p.value, 0) / points.length : 0;

/** Left over at tops at most, m, when they count as honoured; and turns in which that is sought. */
const CLOSE_M = 1e-4;
const TURNS = 60;
/** The logarithm of no factor is greater: a layer is not made more than so many times as fast by one well. */
const MOST = Math.log(2);

/** Depths of tops by a model. */
export function residualsOf(parts: ModelParts, ties: Tie[]): Residual[] {
  const model = modelOf(parts);
  return ties.map((tie) => ({ ...tie, made: model.column(tie.x, tie.y)?.boundaries[tie.layer]?.z ?? Number.NaN }));
}

/** Layers that a top tells of: from below the well's next top above it down to it. */
function groupsOf(ties: Tie[]): { tie: Tie; from: number }[] {
  const byWell = new Map<string, Tie[]>();
  for (const tie of ties) byWell.set(tie.well, [...(byWell.get(tie.well) ?? []), tie]);
  return [...byWell.values()].flatMap((own) => {
    own.sort((a, b) => a.layer - b.layer);
    return own.map((tie, n) => ({ tie, from: n > 0 ? own[n - 1].layer + 1 : 0 }));
  });
}

/**
 * Corrections by which a model honours tops: velocities of layers take them, so that nothing is bent between boundaries.
 * Where a well lacks a top, the layers down to its next one take the same factor. Factors are spread by kriging of their
 * logarithms (Chilès & Delfiner 2012) about what the model had; they are sought from the top down, again and again, since
 * a well that deviates meets layers at other places than their bases.
 * @returns one correction a layer, or null where no well tells of it; and tops whose layer the model has not got there
 */
export function correctionsFor(
  parts: ModelParts,
  ties: Tie[],
  spread: Spread,
): { corrections: (VelocityCorrection | null)[]; without: Tie[] } {
  const corrections: (VelocityCorrection | null)[] = parts.layers.map(() => null);
  const groups = groupsOf(ties);
  const without = new Set<Tie>();
  for (const { tie, from } of groups)
    for (let n = from; n <= tie.layer; n++) {
      corrections[n] ??= { rangeM: spread.rangeM, mean: 0, points: [] };
      corrections[n]?.points.push({ well: tie.well, x: tie.x, y: tie.y, value: 0 });
    }
  const drop = (tie: Tie, from: number) => {
    without.add(tie);
    for (let n = from; n <= tie.layer; n++) {
      const correction = corrections[n];
      if (correction) correction.points = correction.points.filter((p) => p.well !== tie.well);
    }
  };
  const lastLayer = parts.layers.length - 1;
  for (let turn = 0; turn < TURNS; turn++) {
    heed();
    let worst = 0;
    for (let layer = 0; layer <= lastLayer; layer++) {
      const model = modelOf(corrected(parts, corrections));
      const changes: (() => void)[] = [];
      for (const { tie, from } of groups) {
        if (tie.layer !== layer || without.has(tie)) continue;
        const column = model.column(tie.x, tie.y);
        const base = column?.boundaries[layer];
        const top = from > 0 ? column?.boundaries[from - 1].z : column?.z[0];
        if (!base || top === undefined || base.z - top < 0.5 || tie.z <= top) {
          changes.push(() => drop(tie, from));
          continue;
        }
        worst = Math.max(worst, Math.abs(base.z - tie.z));
        const change = Math.log((tie.z - top) / (base.z - top));
        changes.push(() => {
          for (let n = from; n <= layer; n++) {
            const point = corrections[n]?.points.find((p) => p.well === tie.well);
            if (point) point.value = Math.max(-MOST, Math.min(MOST, point.value + change));
          }
        });
      }
      for (const change of changes) change();
      for (const [n, c] of corrections.entries()) if (c && shifted(parts, n, spread)) c.mean = meanOf(c);
    }
    if (worst < CLOSE_M) break;
  }
  return { corrections: corrections.map((c) => (c && c.points.length > 0 ? c : null)), without: [...without] };
}

/** A model with further corrections. */
export function corrected(parts: ModelParts, more: (VelocityCorrection | null)[]): ModelParts {
  return {
    ...parts,
    layers: parts.layers.map((layer, n) => {
      const own = more[n];
      return own ? { ...layer, corrections: [...layer.corrections, own] } : layer;
    }),
  };
}

/** What is found at each top when its well is left out of the correction. */
export function leftOut(parts: ModelParts, ties: Tie[], spread: Spread): Residual[] {
  const wells = [...new Set(ties.map((t) => t.well))];
  return wells.flatMap((well) => {
    const others = ties.filter((t) => t.well !== well);
    const { corrections } = correctionsFor(parts, others, spread);
    return residualsOf(
      corrected(parts, corrections),
      ties.filter((t) => t.well === well),
    );
  });
}
