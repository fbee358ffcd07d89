export * from './change';
export * from './diff';
export * from './schema';
