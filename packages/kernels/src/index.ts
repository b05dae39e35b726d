export { type FieldPicture, fieldPicture, fieldPictureTwin, type PictureRoom } from './fieldPicture.ts';
export { HEAP_BASE, type Kernels, loadKernels, reserve, threadKernels } from './load.ts';
export {
  halfBand,
  PATH_START,
  type PairCosts,
  type PathCosts,
  type PathProblem,
  type PathStep,
  pairAt,
  pathCosts,
  pathCostsOnward,
  pathCostsTwin,
  rowOf,
} from './paths.ts';
export { type Room, roomIn } from './room.ts';
export {
  type CutLine,
  cutSlices,
  floatsOf,
  ibmOf,
  ibmTwin,
  LANES,
  mixWords,
  mixWordsTwin,
  type Sums,
  sums,
} from './samples.ts';
export { type Slanted, slantedMeans, slantedMeansTwin, slantedRoom } from './slanted.ts';
export * from './twins.ts';
export { type VarianceBlock, varianceBlock, varianceBlockTwin } from './variance.ts';
