export * from './hub';
export * from './session';
