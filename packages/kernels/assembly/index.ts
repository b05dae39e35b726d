export { cutSlices, ibmTraces, mixWords, sums, turnTraces } from './samples';
export { fieldPicture } from './fieldPicture';
export { varianceLine } from './variancePlane';
