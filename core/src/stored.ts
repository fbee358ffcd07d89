// What is on, as a look: asked for when it is stored.

export { lookOfNow } from './gear/on-now';
