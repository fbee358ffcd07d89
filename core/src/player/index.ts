export * from './deck';
export * from './deck-clock';
export * from './follow';
export * from './match';
export * from './words';
