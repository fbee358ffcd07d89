export * from './schema';
export * from './ramp';
