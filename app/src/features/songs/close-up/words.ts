// What Close-up calls things.

import type { Drum } from '@hovlix/core/music';
import type { Pattern } from '@hovlix/core/song';
import type { Grid } from './grid';

export const GRID_NAMES: Readonly<Record<Grid, string>> = {
  bar: 'Bar',
  beat: 'Beat',
  '1/2': '1/2 beat',
  '1/4': '1/4 beat',
  '1/8': '1/8 beat',
  triplet: 'Triplet',
  off: 'Off',
};

export const PATTERN_NAMES: Readonly<Record<Pattern, string>> = {
  beats: 'Every beat',
  'off-beats': 'Off-beats',
  eighths: 'Every eighth',
  'back beats': 'Back beats',
  '3-3-2': '3-3-2',
  downbeats: 'Downbeats',
};

export const HEARD_NAMES: Readonly<Record<Drum, string>> = { kick: 'Kicks', snare: 'Snares', hat: 'Hats' };
