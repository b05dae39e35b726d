import { z } from 'zod';
import { stopIf } from '../../earth/errors.ts';
import type { Volume } from '../../earth/objects.ts';
import { type LocalStep, shapeOfGrid } from '../../engine/local.ts';
import {
  acrossHalo,
  differencesAcross,
  type Evened,
  evenOut,
  evenOutPlain,
  strengthOver,
} from '../../faults/across.ts';
import { metresOfStep } from '../../faults/orientation.ts';
import { planesOf, scanHalo, scanPlanes, type Tried } from '../../faults/scan.ts';
import { readRegion } from '../../storage/regions.ts';
import { plus } from '../attributes/steering.ts';
import { choice, defineStep, number } from '../define.ts';

const params = z.object({
  scan: choice(
    {
      title: 'Scan',
      description: 'Quick tries planes far apart, careful close together; careful takes three to four times as long.',
    },
    ['quick', 'careful'],
    'quick',
  ),
  towardsFrom: number(
    {
      title: 'Dips towards, from',
      description: 'First azimuth that faults may dip towards, clockwise from grid north.',
      unit: '°',
    },
    { min: 0, max: 360, step: 5, initial: 0 },
  ),
  towardsTo: number(
    { title: 'Dips towards, to', description: 'Last one; from 0 to 360 is every direction.', unit: '°' },
    { min: 0, max: 360, step: 5, initial: 360 },
  ),
  dipFrom: number(
    { title: 'Dips from', description: 'Flattest fault that is looked for.', unit: '°' },
    { min: 10, max: 85, step: 5, initial: 25 },
  ),
  dipTo: number(
    { title: 'Dips to', description: 'Steepest fault that is looked for.', unit: '°' },
    { min: 15, max: 89, step: 1, initial: 78 },
  ),
  length: number(
    {
      title: 'Length of a plane',
      description: 'Along strike: longer is firmer on noise, shorter follows bends and short faults.',
      unit: 'm',
    },
    { min: 50, max: 2000, step: 25, initial: 600 },
  ),
  height: number(
    {
      title: 'Height of a plane',
      description: 'Up and down: longer is firmer on noise, shorter follows faults that flatten.',
      unit: 'm',
    },
    { min: 20, max: 1000, step: 10, initial: 220 },
  ),
  velocity: number(
    {
      title: 'Velocity',
      description: 'That turns time into depth for dips; not used where the volume is in depth.',
      unit: 'm/s',
    },
    { min: 300, max: 8000, step: 50, initial: 2500 },
  ),
});

type Params = z.infer<typeof params>;

/** Bins between the edges of one plane and the next. */
const SPACING = { quick: 3, careful: 1.5 };

const specOf = (p: Params, { domain, vertical }: Volume) => ({
  towards: [p.towardsFrom, p.towardsTo] as [number, number],
  dips: [Math.min(p.dipFrom, p.dipTo), Math.max(p.dipFrom, p.dipTo)] as [number, number],
  halfLengthM: p.length / 2,
  halfHeightM: p.height / 2,
  spacing: SPACING[p.scan],
  sampleM: metresOfStep(domain, vertical.step, p.velocity),
});

/** Whether the sides of planes are compared, or what comes in says already where they differ. */
const compares = ({ quantity }: Volume) => quantity === 'amplitude' || quantity === 'impedance';

/** What is high where beds are broken. */
const unlikeOf = ({ quantity }: Volume) => (quantity === 'coherence' ? (v: number) => 1 - v : (v: number) => v);

interface Ready {
  evened: Evened;
  planes: Tried[];
  volume: Volume;
}

const local: LocalStep<Params, Evened, Ready> = {
  volumes: ['volume'],
  heeds: true,
  halo: (p, volume) => {
    const scan = scanHalo(planesOf(specOf(p, volume), volume.binGrid));
    return compares(volume) ? plus(scan, acrossHalo()) : scan;
  },
  prepare: async (given, { store, signal }) => {
    const volume = given.volume as Volume;
    const shape = shapeOfGrid(volume);
    const lines = (from: number, to: number) =>
      readRegion(store, volume, { i: [from, to], j: [0, shape[1]], k: [0, shape[2]] });
    const heed = () => stopIf(signal);
    return compares(volume) ? evenOut(shape, lines, heed) : evenOutPlain(shape, lines, unlikeOf(volume), heed);
  },
  ready: (evened, p, volumes) => ({
    evened,
    planes: planesOf(specOf(p, volumes.volume), volumes.volume.binGrid),
    volume: volumes.volume,
  }),
  evaluate({ volume: block }, _, { evened, planes, volume }, region) {
    const halo = scanHalo(planes);
    const inner: [number, number, number] = [
      block.size[0] - 2 * (block.halo.inline - halo.inline),
      block.size[1] - 2 * (block.halo.crossline - halo.crossline),
      block.size[2] - 2 * (block.halo.sample - halo.sample),
    ];
    const place = { size: inner, halo, from: block.from, shape: block.shape };
    const unlike = unlikeOf(volume);
    const evidence = compares(volume)
      ? differencesAcross(block, evened, halo)
      : { plain: block.data.map((v) => (v === v ? unlike(v) : 0)) };
    const found = scanPlanes(evidence, place, planes, volume.binGrid);
    const strength = strengthOver(found.strength, evened, region, compares(volume) ? 2 : 1);
    const dip = new Float32Array(found.plane.length);
    const azimuth = new Float32Array(found.plane.length);
    for (let n = 0; n < dip.length; n++) {
      const plane = planes[found.plane[n]];
      dip[n] = plane.dip;
      azimuth[n] = plane.azimuth;
      if (plane.outside) strength[n] = 0;
    }
    return { strength, dip, azimuth };
  },
  outputs: {
    strength: { quantity: 'fault strength', unit: '' },
    dip: { quantity: 'dip angle', unit: '°' },
    azimuth: { quantity: 'azimuth', unit: '°' },
  },
};

export const faultStrength = defineStep({
  id: 'interpret.faultStrength',
  version: 1,
  stage: 'interpret',
  purpose: 'Faults found',
  title: 'Fault strength',
  summary:
    'How broken beds are along the best plane through each sample, over chosen strikes and dips; and how that plane lies.',
  formula:
    's = (max over planes of ⟨(d₊ − d₋)² / E⟩ − n) / (2 − n): d± the means of three traces along dip on each side, E the local energy, n what ⟨⟩ is around; 0 where a plane flatter or steeper than asked for is best.',
  avoid: 'Where bedding ends against bedding, as at channels and unconformities: that is broken too, and seldom plane.',
  source:
    'Hale (2013), Geophysics 78, O33–O43; sums of van Herk (1992), Pattern Recognition Letters 13, 517–521, and Gil & Werman (1993), IEEE PAMI 15, 504–507',
  reach: 'local',
  inputs: {
    volume: { kind: 'volume', title: 'Volume', quantity: ['amplitude', 'impedance', 'variance', 'coherence', 'chaos'] },
  },
  params,
  outputs: {
    strength: { kind: 'volume', title: 'Fault strength' },
    dip: { kind: 'volume', title: 'Dip of the best plane' },
    azimuth: { kind: 'volume', title: 'Azimuth of the best plane' },
  },
  local,
});
