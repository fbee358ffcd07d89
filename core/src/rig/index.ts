export * from './schema';
export * from './patch';
export * from './geometry';
