export * from './schema';
export * from './edits';
export * from './merge';
export * from './reports';
export * from './words';
