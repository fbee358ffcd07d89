// What the playing page says.

export const WORDS = {
  toPlay: (set: string | number, count: string | number) => `${set} · ${count} to play`,
  setList: 'Set list',
  stageLockLarge: 'On stage: lock, large letters, pedals',
  pause: 'Pause',
  play: (song: string | number) => `Play ${song}`,
  min: (clockWords: string | number, ceil: string | number) => `${clockWords} · ${ceil} min`,
  leftSongSet: 'Left of song and set',
  minLeft: (ceil: string | number) => `${ceil} min left`,
  itsMusicNot: 'Its music is not on this device: only its light plays.',
  sections: 'Sections',
  loopThisSection: 'Loop this section',
  goTo: (section: string | number, part: string | number) => `Go to ${section}${part}`,
  noSectionYet: 'No section yet',
  barOf: (bar: string | number, of: string | number) => `bar ${bar} of ${of}`,
  then: (part: string | number) => `then ${part}`,
};
