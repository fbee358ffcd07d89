export * from './schema';
export * from './migrate';
export * from './edits';
export * from './legal';
export * from './copy';
export * from './history';
export * from './order';
export { diff, laid, inverse, type Op, type Ops } from '../change';
