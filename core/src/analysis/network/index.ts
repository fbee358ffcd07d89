export * from './bands';
export { drumOdds, strokesOf } from './drums';
export { ACTIVATION_RATE, activationsOf, type Activations, type Pause } from './network';
