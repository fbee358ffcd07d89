// What Gig says.

export const WORDS = {
  gig: 'Gig',
  padsWithoutSong: 'No song yet. Pads and pedals play without one.',
  setListEmpty: 'The set list is empty. Add a song and it is here on the night.',
  toTheSongs: 'To the songs',
};
