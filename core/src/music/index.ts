export * from './analyse';
export { audioTypeOf, type AudioType } from './decode';
export * from './bands';
export * from './drums';
export * from './envelopes';
export * from './offset';
