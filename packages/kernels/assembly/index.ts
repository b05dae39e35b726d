export { cutSlices, ibmTraces, mixWords, sums, turnTraces } from './samples';
export { fieldPicture } from './fieldPicture';
export { pathRow } from './paths';
export { varianceLine } from './variancePlane';
