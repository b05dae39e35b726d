export { type WriteOptions, writeField } from './write/field.ts';
