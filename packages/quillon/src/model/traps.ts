import { blocksAt, type Structure } from './earth.ts';
import { along, offFault, planeAt, throwAt } from './faults.ts';

const CELL_M = 50;
const U0 = -600;
const V0 = -600;
const NU = Math.round((4975 + 1200) / CELL_M);
const NV = Math.round((3975 + 1200) / CELL_M);
/** Neighbours farther apart than this in depth are held apart by a fault. */
const BREAK_M = 18;

/** Depth of Tolven Top on a grid around the survey; NaN where a normal fault has pulled it apart. */
interface TopGrid {
  depth: Float64Array;
  /** 1 where the cell's Tolven lies in the hanging wall of the fault with that bit. */
  sides: Uint8Array;
}

function gridTop(structure: Structure): TopGrid {
  const depth = new Float64Array(NU * NV).fill(Number.NaN);
  const sides = new Uint8Array(NU * NV);
  for (let a = 0; a < NU; a++)
    for (let b = 0; b < NV; b++)
      for (const block of blocksAt(structure, U0 + a * CELL_M, V0 + b * CELL_M, 3000)) {
        const z = block.surfaces[5];
        if (z >= block.top && z < block.base) {
          depth[a * NV + b] = z;
          sides[a * NV + b] = block.sides;
          break;
        }
      }
  return { depth, sides };
}

export interface Trap {
  topM: number;
  topU: number;
  topV: number;
  /** Where it would spill over a saddle or off the edge of what is modelled. */
  spillM: number;
  spillU: number;
  spillV: number;
}

/** Fill a trap from its highest cell downwards, shallowest cell first, until a lower way out is met. */
function fill(grid: TopGrid, start: number): Trap {
  const { depth } = grid;
  const seen = new Uint8Array(depth.length);
  const front: number[] = [start];
  seen[start] = 1;
  let deepest = depth[start];
  let at = start;
  while (front.length > 0) {
    let best = 0;
    for (let n = 1; n < front.length; n++) if (depth[front[n]] < depth[front[best]]) best = n;
    const cell = front.splice(best, 1)[0];
    const a = Math.floor(cell / NV);
    const b = cell % NV;
    if (depth[cell] < deepest - 4 || a === 0 || b === 0 || a === NU - 1 || b === NV - 1) break;
    if (depth[cell] > deepest) {
      deepest = depth[cell];
      at = cell;
    }
    for (const next of [cell - NV, cell + NV, cell - 1, cell + 1]) {
      if (seen[next] || Number.isNaN(depth[next]) || Math.abs(depth[next] - depth[cell]) > BREAK_M) continue;
      seen[next] = 1;
      front.push(next);
    }
  }
  return {
    topM: depth[start],
    topU: U0 + Math.floor(start / NV) * CELL_M,
    topV: V0 + (start % NV) * CELL_M,
    spillM: deepest,
    spillU: U0 + Math.floor(at / NV) * CELL_M,
    spillV: V0 + (at % NV) * CELL_M,
  };
}

function shallowest(grid: TopGrid, inside: (u: number, v: number, sides: number) => boolean): number {
  let best = -1;
  for (let a = 0; a < NU; a++)
    for (let b = 0; b < NV; b++) {
      const cell = a * NV + b;
      if (Number.isNaN(grid.depth[cell]) || !inside(U0 + a * CELL_M, V0 + b * CELL_M, grid.sides[cell])) continue;
      if (best < 0 || grid.depth[cell] < grid.depth[best]) best = cell;
    }
  return best;
}

/** The shallowest depth at which sand meets sand across the Osmund Fault, and where. */
function leakAcross(structure: Structure): { leakM: number; leakU: number; leakV: number } {
  const fault = structure.faults[0];
  let leak = { leakM: Number.POSITIVE_INFINITY, leakU: 0, leakV: 0 };
  const surfaces = new Float64Array(9);
  for (let v = -400; v < 4200; v += 10) {
    const [, t] = along(fault, fault.originU, v);
    if (throwAt(fault, 5, t) === 0) continue;
    const [u0, v0] = offFault(fault, planeAt(fault, 1090, t), t);
    structure.surfaces(u0, v0, 0, surfaces);
    const [footTop, footBase] = [surfaces[5], surfaces[6]];
    structure.surfaces(u0, v0, 1, surfaces);
    const [hangTop, hangBase] = [surfaces[5], surfaces[6]];
    if (hangTop < footBase && footTop < hangBase) {
      const m = Math.max(hangTop, footTop);
      if (m < leak.leakM) leak = { leakM: m, leakU: u0, leakV: v0 };
    }
  }
  return leak;
}

export interface Traps {
  crest: Trap;
  east: Trap;
  leakM: number;
  leakU: number;
  leakV: number;
  /** Highest point of Tolven Top in the North block. */
  northTopM: number;
}

export function findTraps(structure: Structure): Traps {
  const grid = gridTop(structure);
  const north = (u: number, v: number, sides: number) => (sides & 2) !== 0 && v > 1800 && u < 2800;
  const crest = shallowest(
    grid,
    (u, v, sides) =>
      (sides & 1) !== 0 && !north(u, v, sides) && Math.hypot(u - structure.crestU, v - structure.crestV) < 900,
  );
  const east = shallowest(grid, (u, v, sides) => (sides & 1) === 0 && u > 2900 && v > 500 && v < 2900);
  const northTop = shallowest(
    grid,
    (u, v, sides) =>
      north(u, v, sides) &&
      u > 0 &&
      v < 3975 &&
      throwAt(structure.faults[1], 5, along(structure.faults[1], u, v)[1]) > 15,
  );
  return {
    crest: fill(grid, crest),
    east: fill(grid, east),
    ...leakAcross(structure),
    northTopM: northTop < 0 ? Number.POSITIVE_INFINITY : grid.depth[northTop],
  };
}
