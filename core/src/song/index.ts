export * from './schema';
export * from './bars';
export * from './lay';
