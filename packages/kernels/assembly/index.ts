export { fieldPicture } from './fieldPicture';
export { varianceLine } from './variancePlane';
