// Sheets that open over any place, in one script.

export { MastersSheet } from '../pulse/masters-sheet';
export { TempoSheet } from '../pulse/tempo-sheet';
export { Question } from './Question';
