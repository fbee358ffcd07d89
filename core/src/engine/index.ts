export * from './fields';
export * from './program';
export * from './compile';
export * from './render';
export * from './held-channels';
export * from './explain';
export * from './lamps';
export * from './ribbon';
