import { blend } from './attributes/blend.ts';
import { bodies } from './attributes/bodies.ts';
import { cluster } from './attributes/cluster.ts';
import { coherence } from './attributes/coherence.ts';
import { curvature } from './attributes/curvature.ts';
import { dip } from './attributes/dip.ts';
import { volumeFacies } from './attributes/facies.ts';
import { mapFormula, formula as volumeFormula } from './attributes/formula.ts';
import { frequency } from './attributes/frequency.ts';
import { frequencyMap } from './attributes/frequencyMap.ts';
import { onHorizon } from './attributes/onHorizon.ts';
import { plotClass, plotClassMap } from './attributes/plotClass.ts';
import { smooth } from './attributes/smooth.ts';
import { trace } from './attributes/trace.ts';
import { variance } from './attributes/variance.ts';
import { waveforms } from './attributes/waveforms.ts';
import { bandPass, phase, whiten } from './data/filters.ts';
import { footprint } from './data/footprint.ts';
import { agc, balance, flip, scale, timeGain } from './data/gains.ts';
import { mute } from './data/mute.ts';
import { crop, decimate, resample } from './data/regrid.ts';
import { type AnyStep, registerStep } from './define.ts';
import { correct } from './depth/correct.ts';
import { depthHorizon } from './depth/horizon.ts';
import { interval } from './depth/interval.ts';
import { layers } from './depth/layers.ts';
import { depthLine } from './depth/line.ts';
import { depthModel } from './depth/model.ts';
import { depthFaults, depthPicks } from './depth/sticks.ts';
import { uncertainty } from './depth/uncertainty.ts';
import { depthVolume } from './depth/volume.ts';
import { depthWells } from './depth/wells.ts';
import { age } from './interpret/age.ts';
import { ageSlices } from './interpret/ageSlices.ts';
import { ageValid } from './interpret/ageValid.ts';
import { close } from './interpret/close.ts';
import { joinFaults, splitFault } from './interpret/faultPieces.ts';
import { faultRidges } from './interpret/faultRidges.ts';
import { faultSets } from './interpret/faultSets.ts';
import { faultStrength } from './interpret/faultStrength.ts';
import { faultSurfaces } from './interpret/faultSurfaces.ts';
import { flatten, unflatten } from './interpret/flatten.ts';
import { horizonAge } from './interpret/horizonAge.ts';
import { merge, split } from './interpret/patches.ts';
import { sequences } from './interpret/sequences.ts';
import { terminations } from './interpret/terminations.ts';
import { faultThrow } from './interpret/throw.ts';
import { track } from './interpret/track.ts';
import { align } from './invert/align.ts';
import { background } from './invert/background.ts';
import { coloured } from './invert/coloured.ts';
import { impedance } from './invert/impedance.ts';
import { interceptGradient } from './invert/interceptGradient.ts';
import { netPay } from './invert/netPay.ts';
import { operator } from './invert/operator.ts';
import { prestack } from './invert/prestack.ts';
import { probability } from './invert/probability.ts';
import { realizations } from './invert/realizations.ts';
import { rotate, turning } from './invert/rotate.ts';
import { wedge } from './invert/wedge.ts';
import { knownEverywhere } from './local.ts';
import { angles } from './tie/angles.ts';
import { commonPhaseStep } from './tie/commonPhase.ts';
import { estimate } from './tie/estimate.ts';
import { shape } from './tie/shape.ts';
import { wavelet } from './tie/wavelet.ts';
import { tieWell } from './tie/well.ts';
import { contacts } from './volumes/contacts.ts';
import { inPlace } from './volumes/inPlace.ts';
import { badHole } from './wells/badHole.ts';
import { carry } from './wells/carry.ts';
import { cut } from './wells/cut.ts';
import { despike } from './wells/despike.ts';
import { elastic } from './wells/elastic.ts';
import { facies } from './wells/facies.ts';
import { fill } from './wells/fill.ts';
import { formula } from './wells/formula.ts';
import { net } from './wells/net.ts';
import { porosity } from './wells/porosity.ts';
import { resample as resampleCurve } from './wells/resample.ts';
import { rescale } from './wells/rescale.ts';
import { saturation } from './wells/saturation.ts';
import { shale } from './wells/shale.ts';
import { shear } from './wells/shear.ts';
import { shift } from './wells/shift.ts';
import { splice } from './wells/splice.ts';
import { substitute } from './wells/substitute.ts';

const conditioning = [
  crop,
  decimate,
  resample,
  mute,
  bandPass,
  agc,
  timeGain,
  scale,
  flip,
  phase,
  balance,
  whiten,
  footprint,
];
const logWork = [
  splice,
  despike,
  shift,
  cut,
  rescale,
  resampleCurve,
  fill,
  badHole,
  shale,
  porosity,
  saturation,
  net,
  shear,
  elastic,
  substitute,
  formula,
  carry,
  facies,
];
const builtIn: AnyStep[] = [
  ...conditioning,
  ...logWork,
  wavelet,
  estimate,
  shape,
  tieWell,
  commonPhaseStep,
  angles,
  track,
  close,
  split,
  faultStrength,
  faultRidges,
  faultSurfaces,
  joinFaults,
  splitFault,
  faultSets,
  faultThrow,
  age,
  ageValid,
  flatten,
  unflatten,
  horizonAge,
  sequences,
  terminations,
  ageSlices,
  merge,
  variance,
  trace,
  frequency,
  dip,
  coherence,
  curvature,
  smooth,
  onHorizon,
  frequencyMap,
  volumeFormula,
  mapFormula,
  waveforms,
  plotClass,
  plotClassMap,
  blend,
  cluster,
  volumeFacies,
  bodies,
  align,
  interceptGradient,
  turning,
  rotate,
  operator,
  coloured,
  background,
  impedance,
  prestack,
  realizations,
  probability,
  netPay,
  wedge,
  interval,
  layers,
  depthWells,
  depthModel,
  correct,
  depthVolume,
  depthLine,
  depthHorizon,
  depthFaults,
  depthPicks,
  uncertainty,
  contacts,
  inPlace,
];
for (const step of builtIn) registerStep(step);
knownEverywhere(builtIn.map((step) => step.id));

export { meanSpectrum } from '../conditioning/filter.ts';
export { mergedClasses } from './attributes/waveforms.ts';
export * from './define.ts';
export { describeStep, type StepDescription } from './describe.ts';
export { type BalanceRow, balanceOf } from './invert/balance.ts';
export { type PayParams, type PayWork, payScale, payWork, spreadOfPay } from './invert/netPay.ts';
export { type WedgeParams, wedgeFor } from './invert/wedge.ts';
export { localOf, type Tried, tryOn, tryPlane, tryRegion } from './local.ts';
export { type MadeMap, tryMaps } from './mapStep.ts';
export { checkParams, shownParams, troublesOfParams } from './params.ts';
export { givenOf, kindsOf, type RunRequest, runStep, unfit } from './run.ts';
export { type Tie, type TieParams, tieOf } from './tie/well.ts';
export { carrySettings } from './wells/carry.ts';
export { faciesSettings } from './wells/facies.ts';
