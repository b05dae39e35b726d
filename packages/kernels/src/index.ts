export { HEAP_BASE, type Kernels, loadKernels, reserve } from './load.ts';
export { type VarianceLine, varianceLine, varianceLineTwin } from './variance.ts';
