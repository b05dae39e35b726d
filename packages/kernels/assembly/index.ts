export { cutSlices, ibmTraces, mixWords, sums, turnTraces } from './samples';
export { fieldPicture } from './fieldPicture';
export { pathRow } from './paths';
export { liveSamples, rowCounts, rowSums, windowRatio, withoutNulls } from './variance';
