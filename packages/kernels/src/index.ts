export { type FieldPicture, fieldPicture, fieldPictureTwin, type PictureRoom } from './fieldPicture.ts';
export { HEAP_BASE, type Kernels, loadKernels, reserve } from './load.ts';
export { type VarianceLine, varianceLine, varianceLineTwin } from './variance.ts';
