export * from './analyse';
export { ROLES, type FoundSection, type Role } from './sections';
export { audioTypeOf, type AudioType, type Between } from './decode';
export { gridOf, otherGrid, READINGS, type Grid, type Heard, type Reading } from './grid';
export { readHeard, writeHeard } from './heard-file';
export { readTags, type Tags } from './tags';
export { clearnessOf, confidenceOf, confidencesOf, DOUBTFUL, doubtfulPassages, type Passage } from './confidence';
