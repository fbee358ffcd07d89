export * from './act';
export * from './act-names';
export * from './left';
export * from './place';
export * from './song';
export * from './stop';
export * from './words';
export * from './turn';
