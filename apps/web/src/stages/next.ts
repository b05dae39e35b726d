import { type EarthObject, type Kind, stackSetOf } from '@lithagon/core';

/** Something worth doing now, and the step, hands or files that it is done with. */
export interface Next {
  /** Bed of the Column that it belongs to. */
  stage: string;
  words: string;
  by: { step: string } | { hand: 'load' | 'frame' | 'pick' | 'fault' | 'area' };
}

/**
 * What to do next, by what a project holds and lacks, the first thing first. The usual order of the work is walked until
 * something is missing; what rests on nothing yet is not offered.
 */
export function whatNext(objects: EarthObject[], hasFrame: boolean): Next[] {
  const has = (kind: Kind, more: (o: EarthObject) => boolean = () => true) =>
    objects.some((o) => o.kind === kind && more(o));
  const made = (step: string) => objects.some((o) => o.madeBy.step === step);
  const inDomain = (domain: string) => (o: EarthObject) => 'domain' in o && o.domain === domain;
  const seismic = has('volume') || has('seismic line');
  const tied = has('time-depth relation') || has('checkshots');
  const horizon = has('horizon', inDomain('twt'));
  const seen = objects.find((o) => o.kind === 'volume' && o.quantity === 'amplitude');
  const stacks = seen?.kind === 'volume' ? stackSetOf(seen, objects) : [];
  const all: (Next | false)[] = [
    objects.length === 0 && { stage: 'data', words: 'Load seismic and wells', by: { hand: 'load' } },
    objects.length > 0 && !seismic && { stage: 'data', words: 'Load seismic', by: { hand: 'load' } },
    seismic && !has('well') && { stage: 'wells', words: 'Load wells', by: { hand: 'load' } },
    objects.length > 0 && !hasFrame && { stage: 'data', words: 'Declare the coordinate system', by: { hand: 'frame' } },
    has('volume') &&
      has('well') &&
      !has('wavelet') && { stage: 'tie', words: 'Make a first wavelet', by: { step: 'tie.wavelet' } },
    has('wavelet') &&
      has('well') &&
      !made('tie.well') && { stage: 'tie', words: 'Tie a first well', by: { step: 'tie.well' } },
    has('volume') &&
      !has('picks') &&
      !horizon && { stage: 'interpret', words: 'Pick a first horizon', by: { hand: 'pick' } },
    has('volume') &&
      (has('picks') || (tied && has('tops'))) &&
      !made('interpret.track') && {
        stage: 'interpret',
        words: 'Track a horizon through the volume',
        by: { step: 'interpret.track' },
      },
    made('interpret.track') &&
      !made('interpret.close') && {
        stage: 'interpret',
        words: 'Close the horizon’s gaps',
        by: { step: 'interpret.close' },
      },
    has('volume') && !has('fault') && { stage: 'interpret', words: 'Draw a first fault', by: { hand: 'fault' } },
    made('interpret.faultStrength') &&
      !made('interpret.faultRidges') && {
        stage: 'interpret',
        words: 'Thin fault strength to ridges',
        by: { step: 'interpret.faultRidges' },
      },
    made('interpret.faultRidges') &&
      !made('interpret.faultSurfaces') && {
        stage: 'interpret',
        words: 'Grow ridges to fault surfaces',
        by: { step: 'interpret.faultSurfaces' },
      },
    made('interpret.faultSurfaces') &&
      !made('interpret.faultSets') && {
        stage: 'interpret',
        words: 'Sort faults by how they lie',
        by: { step: 'interpret.faultSets' },
      },
    made('interpret.age') &&
      !made('interpret.ageValid') && {
        stage: 'interpret',
        words: 'See how far down ages are valid',
        by: { step: 'interpret.ageValid' },
      },
    made('interpret.age') &&
      !made('interpret.flatten') && {
        stage: 'interpret',
        words: 'Draw the seismic by age',
        by: { step: 'interpret.flatten' },
      },
    stacks.length > 1 &&
      !made('invert.interceptGradient') && {
        stage: 'invert',
        words: 'Make intercept and gradient of the stacks',
        by: { step: 'invert.interceptGradient' },
      },
    made('invert.interceptGradient') &&
      !made('invert.turning') && {
        stage: 'invert',
        words: 'Turn intercept and gradient against logs',
        by: { step: 'invert.turning' },
      },
    seismic &&
      tied &&
      has('volume') &&
      !has('operator') && { stage: 'invert', words: 'Design a coloured operator', by: { step: 'invert.operator' } },
    has('operator') &&
      !made('invert.coloured') && {
        stage: 'invert',
        words: 'Look at the operator, and apply it',
        by: { step: 'invert.coloured' },
      },
    horizon &&
      tied &&
      has('wavelet') &&
      !made('invert.background') && {
        stage: 'invert',
        words: 'Spread impedance from wells along horizons',
        by: { step: 'invert.background' },
      },
    made('invert.background') &&
      !made('invert.impedance') && {
        stage: 'invert',
        words: 'Invert for impedance with its spread',
        by: { step: 'invert.impedance' },
      },
    made('invert.impedance') &&
      !made('invert.realizations') && {
        stage: 'invert',
        words: 'Draw realizations of the impedance',
        by: { step: 'invert.realizations' },
      },
    horizon &&
      tied &&
      !has('velocity model') && { stage: 'depth', words: 'Model velocities', by: { step: 'depth.layers' } },
    horizon &&
      has('velocity model') &&
      !made('depth.correct') &&
      has('tops') && { stage: 'depth', words: 'Make velocities honour the wells', by: { step: 'depth.correct' } },
    horizon &&
      has('velocity model') &&
      !made('depth.horizon') && { stage: 'depth', words: 'Take the horizon to depth', by: { step: 'depth.horizon' } },
    made('depth.horizon') &&
      made('depth.correct') &&
      !made('depth.uncertainty') && {
        stage: 'depth',
        words: 'See how far depths may be off',
        by: { step: 'depth.uncertainty' },
      },
    has('pressures') &&
      !has('contacts') && { stage: 'volumes', words: 'Find fluid contacts', by: { step: 'volumes.contacts' } },
    made('depth.horizon') &&
      !has('polygon', (o) => o.kind === 'polygon' && o.closed) && {
        stage: 'volumes',
        words: 'Draw the area of the field',
        by: { hand: 'area' },
      },
    made('depth.horizon') &&
      has('contacts') &&
      !made('volumes.inPlace') && {
        stage: 'volumes',
        words: 'Count volumes in place',
        by: { step: 'volumes.inPlace' },
      },
  ];
  return all.filter((n): n is Next => n !== false);
}
