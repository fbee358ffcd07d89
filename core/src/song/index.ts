export * from './schema';
export * from './bars';
export * from './lay';
export * from './copy';
export type { Keeps } from './time-edits';
export * from './gig-place';
export * from './in-turn';
