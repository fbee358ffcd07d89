export * from './bands';
export * from './drums';
export * from './envelopes';
export * from './offset';
