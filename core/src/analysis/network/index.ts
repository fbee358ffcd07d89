export * from './bands';
export { halvesOf } from './base64';
export { drumOdds, strokesOf } from './drums';
export { ACTIVATION_RATE, activationsOf, type Activations, type Pause } from './network';
