export * from './schema';
export * from './bars';
export * from './lay';
export * from './copy';
export * from './gig-place';
export * from './in-turn';
