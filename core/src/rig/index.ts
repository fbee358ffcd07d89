export * from './schema';
export * from './patch';
export * from './geometry';
export * from './library';
export * from './add';
