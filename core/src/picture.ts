// The part of the engine that a page draws and asks with. The rest renders light, in a worker or on the server, and would
// only make the first load longer.

export * from './engine/lamp-numbers';
export { isFaint } from './engine/faint';
export { colourMatch } from './engine/match';
export { walkedChannel } from './engine/held-channels';
