// Pedals, keys, knobs and MIDI gear: what comes in and what it does, in a page or on the computer that conducts.

export * from './host';
export * from './control-surface';
export * from './hear';
export * from './strikes';
export * from './acts';
export { isLit, lightPads } from './lit-pads';
