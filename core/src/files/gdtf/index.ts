export { readGdtf, type GdtfRead } from './read';
export { notInGdtf, writeGdtf } from './write';
