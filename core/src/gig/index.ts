export * from './act';
export * from './set';
export * from './stops';
export * from './control';
export * from './gesture';
export * from './trainer';
