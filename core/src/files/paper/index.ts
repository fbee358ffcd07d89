export * from './labels';
export * from './patch-sheet';
export type { Drawn, Scribe } from './pen';
export * from './set-sheet';
