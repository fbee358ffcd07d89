export * from './schema';
export * from './migrate';
export * from './edits';
export * from './history';
