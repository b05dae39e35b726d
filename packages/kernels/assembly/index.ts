export { cutSlices, ibmTraces, mixWords, sums, turnTraces } from './samples';
export { fieldPicture } from './fieldPicture';
export { pathRow } from './paths';
export { liveSamples, rowCounts, rowSums, slidingRatio, withoutNulls } from './variance';
export { weigh } from './weigh';
export { normals, products } from './tensor';
export { calmest, diffuse, firstPart, foldRows, medianRows, moved, pairProducts } from './along';
export { keepBest, slantedMeans } from './slanted';
