export * from './analyse';
export { audioTypeOf, type AudioType } from './decode';
