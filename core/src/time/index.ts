export * from './tempo-map';
export * from './meter';
export * from './tap';
export * from './time-of-day';
