// What the lead sheet says.

import type { Song } from '@hovlix/core/song';
import { kindOfSection } from '@hovlix/core/song';

/** Sections that most songs have, to choose from. */
export const USUAL_SECTIONS = ['Intro', 'Verse', 'Chorus', 'Bridge', 'Solo', 'Outro'] as const;

/** The kinds of sections to offer: those of the song first, then the usual ones. */
export function kindsFor(song: Song): readonly string[] {
  const own = song.sections.map(({ name }) => name.replace(/[\s\d.#]+$/, ''));
  const known = new Map<string, string>();
  for (const name of [...own, ...USUAL_SECTIONS]) {
    const kind = kindOfSection(name);
    if (kind && !known.has(kind)) known.set(kind, name);
  }
  return [...known.values()];
}

/** What the next section of a kind is called: “Chorus”, “Chorus 2”. */
export function nextName(song: Song, kind: string): string {
  const same = song.sections.filter(({ name }) => kindOfSection(name) === kind.toLowerCase());
  if (same.length === 0) return kind;
  const numbers = same.map(({ name }) => Number(/\d+$/.exec(name)?.[0] ?? 1));
  return `${kind} ${Math.max(...numbers) + 1}`;
}

export const WORDS = {
  newSong: 'New song',
  songWithoutMusic: 'Song without music',
  title: 'Title',
  tempoBeatsMinute: 'Tempo, beats a minute',
  bars: 'Bars',
  meter: 'Meter',
  songsYouPlay: 'For songs you play to a click, or with no recording. The click is in Bars and tempo.',
  addSong: 'Add song',
  howClipPlays: 'How the clip plays its look',
  speed: 'Speed',
  slower: 'Slower',
  faster: 'Faster',
  level: 'Level',
  dimmer: 'Dimmer',
  brighter: 'Brighter',
  coloursTurned: 'Colours turned',
  turnColoursBack: 'Turn the colours back',
  turnColours: 'Turn the colours on',
  comesGoes: (part: string | number) => `${part} comes and goes in`,
  fadeIn: 'Fade in',
  fadeOut: 'Fade out',
  runs: (loops: string | number) => `${loops} runs`,
  stopsAfterLast: (chase: string | number, runs: string | number, howMany: string | number, part: string | number) =>
    `${chase} stops after ${runs}: the last ${howMany} ${part} dark. With 0 runs it loops.`,
  shorter: (name: string | number) => `${name} shorter`,
  longer: (name: string | number) => `${name} longer`,
  dragMoveLook: 'Drag to move the look',
  dragMakeLonger: 'Drag to make it longer or shorter',
  songNotShow: 'This song is not in the show',
  mayHaveBeen: 'It may have been removed, or belongs to another show on this device.',
  toTheSongs: 'To the songs',
  tapBarsLight: 'Tap bars to light them',
  chooseBarTap: 'Choose a bar, tap a second one to stretch to it, then pick a look.',
  playFromHere: 'Play from here',
  copy: 'Copy',
  paste: (part: string | number) => `Paste ${part}`,
  clearAllLanes: 'Clear all lanes',
  songHasLight: 'The song has light. Press play, then change what you like.',
  songHasNo: 'This song has no light yet. Tap bars and lay looks, or let yours take turns.',
  lightMyLooks: 'Light it with my looks',
  bar: (barLabel: string | number) => `Bar ${barLabel}`,
  loop: 'Loop',
  looping: (part: string | number) => `Looping ${part}`,
  endTheLoop: 'End the loop',
  speedMusic: 'Speed of the music',
  choose: (section: string | number) => `Choose ${section}`,
  sections: 'Sections',
  goTo: (section: string | number) => `Go to ${section}`,
  allSongs: 'All songs',
  aboutThisSong: 'About this song',
  barsAndTempo: 'Bars and tempo',
  bpm: (part: string | number, meterText: string | number) => `${part} bpm · ${meterText} ·`,
  lanes: 'Lanes',
  pause: 'Pause',
  play: 'Play',
  bringBackLooks: 'Bring back the looks from before',
  holdLastLight: 'Hold the last light',
  fadeToDark: 'Fade to dark',
  fadeLook: 'Fade to a look',
  playNextSong: 'Play the next song',
  afterTheSong: (name: string | number) => `After the song: ${name}.`,
  afterTheSongAlone: 'After the song',
  comesNext: (next: string | number) => `“${next}” comes next.`,
  lastSongLast: 'This is the last song: the last light stays.',
  lookAfterSong: 'The look after the song',
  fadeAfterSong: 'Fade after the song',
  fadeAfterSongShorter: 'Fade after the song shorter',
  fadeAfterSongLonger: 'Fade after the song longer',
  worthALook: 'Worth a look',
  barInLine: (bar: string | number) => `bar ${bar}`,
  stageFollows: 'Stage follows',
  stageHolds: 'Stage holds',
  stageFollowsScreen: 'The stage follows this screen',
  stageDoesNot: 'The stage does not follow this screen',
  nothingToPlace: (where: string) => `There is nothing to place${where}.`,
  notesPlaced: (pad: string, count: number, where: string) =>
    `${pad}: ${count} ${count === 1 ? 'note' : 'notes'}${where}.`,
  chooseMissing: 'Choose the recording that is missing',
  add: 'Add',
  musicNotHere: 'The music of this song is not on this device.',
  isAtTempo: (title: string, bpm: string) => `“${title}” is at ${bpm} bpm now.`,
};
