// Pads to play a kit with, fetched when they are first shown: the first page has none.

import { fetched } from './fetched';

export const HitPads = fetched(async () => (await import('./struck-pads')).StruckPads);
