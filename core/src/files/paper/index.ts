export * from './patch-sheet';
