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

export const WORDS = {
  laneIsDeleted: (lane: string | number) => `Lane “${lane}” is deleted.`,
  lane: (lane: string | number) => `Lane ${lane}`,
  name: 'Name',
  fader: 'Fader',
  deleteLane: 'Delete lane',
  lanesBelow: 'With the lanes below',
  onlyTheseRoles: 'Only these roles',
  onlyTheseRolesNamed: (part: string | number) => `Only these roles${part}`,
  onlyTheseAttributes: 'Only these attributes',
  onlyTheseAttributesNamed: (part: string | number) => `Only these attributes${part}`,
  hitKit: 'Hit kit',
  kitsMadeLooks: 'Kits are made in Looks.',
  plays: 'Plays',
  notRig: (targetWords: string | number) => `${targetWords} (not in this rig)`,
  moves: 'Moves',
  hitsNeedLamps: 'Hits need lamps in a role. Add lamps in Rig first.',
  lanes: 'Lanes',
  laneTopCounts: 'The lane at the top counts last. Drag to change the order.',
  addALane: 'Add a lane',
  add: (name: string | number) => `Add ${name}`,
  midiFile: 'MIDI file',
  importMidi: 'Import MIDI',
  chooseMidiFile: 'Choose a MIDI file',
  exportMidi: 'Export MIDI',
  tempoMeterSections: 'Tempo, meter, sections as markers, markers as cue points, and hits as notes.',
  settingsOf: (lane: string | number) => `Settings of ${lane}`,
  mute: 'Mute',
  muteNamed: (lane: string | number) => `Mute ${lane}`,
  solo: 'Solo',
  soloNamed: (lane: string | number) => `Solo ${lane}`,
  sections: (count: string | number) => `${count} sections`,
  ofHits: (count: string | number, part: string | number) => `${count} ${part} of hits`,
  from: (name: string | number, part: string | number) => `From “${name}”: ${part}.`,
  takeItsBars: 'Use its bars and tempo; bar 1 stays where it is',
  takeItsMarker: 'Use its marker as a section',
  takeItsMarkers: (count: string | number) => `Use its ${count} markers as sections`,
  takeItsCue: 'Use its cue point as a marker',
  takeItsNames: (count: string | number) => `Use its ${count} names of places as markers`,
  takeItsCuePoints: (count: string | number) => `Use its ${count} cue points as markers`,
  holdsNoNotes: 'It holds no notes.',
  import: (howMany: string | number) => `Import ${howMany}`,
  importAlone: 'Import',
  cancel: 'Cancel',
  hits: 'Hits',
  laneEachNote: 'A lane for each note',
  nothingAnswersTo: (list: string | number) => `Nothing answers to ${list}.`,
  countsInSeconds: 'Counts in seconds',
  to: (low: string | number, high: string | number) => `${low} to ${high}`,
  allLampsLevel: 'All lamps: level',
  faderOf: (lane: string) => `Lane ${lane}: fader`,
  laneThatIsGone: 'that is gone',
  roleThatIsGone: 'A role that is gone',
  allLanes: 'All lanes',
  speedOf: (whose: string) => `${whose}: speed of waves and chases`,
  sizeOf: (whose: string) => `${whose}: size of waves`,
};

/** Lanes to begin with. */
export const KINDS = {
  looks: ['Looks', 'Looks and chases on bars.'],
  rhythm: ['Rhythm', 'Hits on notes, on every beat or on the drums of the music.'],
  swell: ['Curve', 'A level drawn over time, such as a slow rise.'],
  motion: ['Motion', 'Looks of which only the aim counts: where heads point.'],
  tint: ['Tint', 'Looks of which only the colour counts.'],
  actions: ['Actions', 'At a moment: start a look, set a master, send MIDI.'],
  punches: ['Punches', 'Short looks that replace everything below.'],
} as const;
