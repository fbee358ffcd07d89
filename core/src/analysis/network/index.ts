export * from './bands';
export { ACTIVATION_RATE, activationsOf, type Activations, type Pause } from './network';
