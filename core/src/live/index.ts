export * from './actions';
export * from './state';
export * from './run';
export * from './hearing';
export * from './hands';
export * from './standing';
export * from './conductor';
export * from './messages';
