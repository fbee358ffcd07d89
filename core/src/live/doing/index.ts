export * from './act';
export * from './place';
export * from './song';
export * from './stop';
export * from './words';
