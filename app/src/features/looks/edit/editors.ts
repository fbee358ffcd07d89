// One piece for the bundler.

export { EditPlace } from './EditPlace';
export { StepPlace } from './StepPlace';
