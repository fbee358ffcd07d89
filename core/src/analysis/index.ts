export * from './analyse';
export type { FoundSection, Role } from './sections';
export { isAiff, wavOfAiff } from './aiff';
export { packedAs, rateOfPacked, wavOfSound } from './packed';
export { audioTypeOf, type AudioType, type Between } from './decode';
export { gridOf, otherGrid, READINGS, type Grid, type Heard, type Reading } from './grid';
export { readHeard, writeHeard } from './heard-file';
export { readTags, tagChunks, type Tags } from './tags';
export { confidenceOf, confidencesOf, doubtfulPassages, type Passage } from './confidence';
