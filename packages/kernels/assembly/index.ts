export { varianceLine } from './variancePlane';
