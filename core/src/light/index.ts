export * from './schema';
export * from './drive';
export * from './places';
export * from './wave';
export * from './chase';
export * from './ramp';
export * from './chance';
