export * from './spaces';
export * from './emitters';
export * from './wheel';
