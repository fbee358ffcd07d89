// What lanes and what they do are called.

import type { FAMILIES } from '@hovlix/core/light';
import type { BLENDS, CURVE_BLENDS, Lane, SEGMENTS } from '@hovlix/core/song';

export const TYPE_NAMES: Readonly<Record<Lane['type'], string>> = {
  looks: 'Looks',
  hits: 'Hits',
  curve: 'Curve',
  actions: 'Actions',
};

export const BLEND_NAMES: Readonly<Record<(typeof BLENDS)[number], string>> = {
  highest: 'Highest',
  replace: 'Replace',
  add: 'Add',
  multiply: 'Multiply',
};
export const BLEND_HINTS: Readonly<Record<(typeof BLENDS)[number], string>> = {
  highest: 'Each lamp is as bright as its brightest lane asks for.',
  replace: 'Lamps with a look here do only what it says.',
  add: 'Its brightness is added to the lanes below, up to full.',
  multiply: 'It dims the lanes below: 50 % here halves them.',
};

export const CURVE_BLEND_NAMES: Readonly<Record<(typeof CURVE_BLENDS)[number], string>> = {
  scale: 'Scale',
  add: 'Add',
  replace: 'Replace',
};
export const CURVE_BLEND_HINTS: Readonly<Record<(typeof CURVE_BLENDS)[number], string>> = {
  scale: 'At 100 % the lanes below stay as they are, at 0 % they are dark.',
  add: 'It is added to the lanes below, up to full.',
  replace: 'The lamps do what the curve says, whatever the lanes below ask for.',
};

export const FAMILY_NAMES: Readonly<Record<(typeof FAMILIES)[number], string>> = {
  level: 'Level',
  colour: 'Colour',
  aim: 'Aim',
  beam: 'Beam',
  rate: 'Rate',
  other: 'Other',
};

export const SEGMENT_NAMES: Readonly<Record<(typeof SEGMENTS)[number], string>> = {
  straight: 'Straight',
  smooth: 'S-shape',
  bent: 'Curved',
  hold: 'Hold',
  off: 'End',
};
