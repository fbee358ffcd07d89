// What the list of songs says.

export const WORDS = {
  songs: 'Songs',
  allShows: (name: string | number) => `${name}. All shows`,
  searchTheSongs: 'Search the songs',
  addMusic: 'Add music',
  searchSongsBy: 'Search the songs by title or artist',
  titleOrArtist: 'Title or artist',
  order: 'Order',
  noSongMatches: 'No song matches.',
  dropWavFlac:
    'Drop WAV, AIFF, FLAC, MP3, OGG, M4A or Opus files anywhere on this page, a whole folder, a playlist, a MIDI file, or a .hovlix show.',
  songWithoutMusic: 'Song without music',
  noSongYet: 'No song yet',
  addRecordingIts: 'Add a recording: its tempo, beats and bars are found for you.',
  open: (song: string | number) => `Open ${song}`,
  bpm: (part: string | number) => `${part} bpm`,
  moreAbout: (song: string | number) => `More about ${song}`,
};

/** Orders of the list. */
export const SORTED = { set: 'As played', title: 'Title', tempo: 'Tempo' } as const;
