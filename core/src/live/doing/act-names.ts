// What acts are called wherever one chooses, lists or prints them.

import type { Act } from '../../gig';
import { banksOf, noteName } from '../../light';
import { never } from '../../problem';
import { chosenWords, handWords } from './by-hand';
import type { Show } from '../../show';

/** The name of an act, the same at any moment. */
export function actName(show: Show, act: Act): string {
  const late = act.after ? `, ${act.after} beats later` : '';
  return named(show, act) + late;
}

function named(show: Show, act: Act): string {
  switch (act.act) {
    case 'look':
      return `${lookName(show, act.look)} ${PRESS_WORDS[act.press]}`;
    case 'pad':
      return `Pad ${act.place} of the bank`;
    case 'go':
      return act.way === 'next' ? 'Next look of the bank' : 'Previous look of the bank';
    case 'bank':
      return `Bank ${banksOf(show).find(({ id }) => id === act.bank)?.name ?? 'that is gone'}`;
    case 'turn-bank':
      return act.way === 'next' ? 'Next bank' : 'Previous bank';
    case 'stop':
      return act.way === 'next' ? 'On in the set' : 'Back in the set';
    case 'entry':
      return act.way === 'next' ? 'Next song of the set' : 'Previous song of the set';
    case 'song':
      return SONG_WORDS[act.does];
    case 'play':
      return `Play ${show.songs.find(({ id }) => id === act.song)?.title ?? 'a song that is gone'}`;
    case 'section':
      return SECTION_WORDS[act.to];
    case 'loop':
      return 'Loop the section, or end the loop';
    case 'tap':
      return 'Tap the tempo';
    case 'tempo':
      return TEMPO_WORDS[act.to];
    case 'nudge':
      return `Move beats ${Math.round(Math.abs(act.by) * 1000)} ms ${act.by < 0 ? 'earlier' : 'later'}`;
    case 'master':
      return `${act.role === null ? 'Grand master' : `Master of ${roleName(show, act.role)}`} to ${Math.round(act.level * 100)} %`;
    case 'blackout':
      return `Blackout ${act.to === 'toggle' ? 'on or off' : act.to}`;
    case 'freeze':
      return `Freeze ${act.to === 'toggle' ? 'on or off' : act.to}`;
    case 'sending':
      return `Master output ${act.to === 'toggle' ? 'on or off' : act.to}`;
    case 'release':
      return 'Release what is by hand';
    case 'all-off':
      return 'All looks off';
    case 'hit':
      return `Hit ${hitName(show, act)} on ${roleName(show, act.role)}`;
    case 'speed':
      return `Waves and chases: ${act.to === 'normal' ? 'normal speed' : act.to === 'half' ? 'half as fast' : 'twice as fast'}`;
    case 'hand':
      return handWords(show, act);
    case 'choose':
      if (act.role === null) return 'Choose no role';
      return act.beside ? `Choose ${roleName(show, act.role)} too` : `Choose ${roleName(show, act.role)}`;
    case 'chosen':
      return chosenWords(show, act.does);
    case 'lamps':
      return `${LAMP_WORDS[act.does]} ${roleName(show, act.role)}`;
    case 'lock':
      return act.to === 'toggle'
        ? 'Lock or unlock this screen'
        : act.to === 'on'
          ? 'Lock this screen'
          : 'Unlock this screen';
    case 'store':
      return 'Store what is on as a look';
    default:
      return never(act);
  }
}

const PRESS_WORDS = { toggle: 'on or off', start: 'on', stop: 'off', flash: 'while held' } as const;
const SONG_WORDS = { toggle: 'Play or pause', play: 'Play', pause: 'Pause', restart: 'Restart the song' } as const;
const SECTION_WORDS = {
  next: 'Next section',
  previous: 'Previous section',
  again: 'Section again',
  last: 'Last section',
} as const;
const LAMP_WORDS = { reset: 'Reset', 'lamp on': 'Strike the lamps of', 'lamp off': 'Put out the lamps of' } as const;

export const TEMPO_WORDS = {
  faster: '1 bpm faster',
  slower: '1 bpm slower',
  half: 'Half the tempo',
  double: 'Double the tempo',
  one: 'Bar starts now',
} as const;

export const lookName = ({ looks, chases }: Pick<Show, 'looks' | 'chases'>, id: string): string =>
  [...looks, ...chases].find((one) => one.id === id)?.name ?? 'A look that is gone';
export const roleName = (show: Pick<Show, 'roles'>, role: string): string =>
  show.roles.find(({ id }) => id === role)?.name ?? 'a role that is gone';
export const hitName = (show: Show, { kit, note }: Extract<Act, { act: 'hit' }>): string =>
  show.kits
    .find(({ id }) => id === kit)
    ?.hits.find(({ low, high }) => note >= Math.min(low, high) && note <= Math.max(low, high))?.name ?? noteName(note);
