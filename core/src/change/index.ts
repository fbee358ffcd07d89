export { withOldPatches } from './old-patches';
export * from './change';
export * from './diff';
export * from './schema';
