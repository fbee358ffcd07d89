// What the faders of a look say.

export const WORDS = {
  eachAlone: 'Each alone',
  allTheSame: 'All the same',
  keepDistances: 'Keep distances',
  onTheFaders: 'On the faders',
  movedTogether: 'Moved together',
  faders: (kind: string | number) => `Faders: ${kind}`,
  fineTenthWay: 'Fine: a tenth of the way',
};
