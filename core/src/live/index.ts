export * from './actions';
export * from './state';
export * from './conductor';
export * from './messages';
