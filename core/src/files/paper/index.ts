export * from './labels';
export * from './patch-sheet';
export * from './set-sheet';
