export { cutSlices, ibmFloats, mixWords, sums, turnFloats } from './samples';
export { fieldPicture } from './fieldPicture';
export { varianceLine } from './variancePlane';
