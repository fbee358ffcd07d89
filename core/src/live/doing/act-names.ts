// What acts are called wherever one chooses, lists or prints them; and all acts that a show offers.

import { Act } from '../../gig';
import { banksOf, noteName } from '../../light';
import { never } from '../../problem';
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
      return `${act.role === null ? 'Grand master' : `Master of ${roleName(show, act.role)}`} to ${Math.round(act.level * 100)} %`; // prettier-ignore
    case 'blackout':
      return `Blackout ${act.to === 'toggle' ? 'on or off' : act.to}`;
    case 'sending':
      return `Master output ${act.to === 'toggle' ? 'on or off' : act.to}`;
    case 'release':
      return 'Release what is by hand';
    case 'all-off':
      return 'All looks off';
    case 'hit':
      return `Hit ${hitName(show, act)} on ${roleName(show, act.role)}`;
    case 'speed':
      return `Waves and chases: ${act.to === 'normal' ? 'normal speed' : act.to === 'half' ? 'half as fast' : 'twice as fast'}`; // prettier-ignore
    case 'hand':
      return handWords(show, act);
    default:
      return never(act);
  }
}

/** Whom values in hand speak to. */
export const handWords = (show: Show, { values }: Pick<Extract<Act, { act: 'hand' }>, 'values'>): string =>
  `By hand: ${[...new Set(values.map(({ role }) => (role ? roleName(show, role) : 'lamps')))].join(', ')}`;

const PRESS_WORDS = { toggle: 'on or off', start: 'on', stop: 'off', flash: 'while held' } as const;
const SONG_WORDS = { toggle: 'Play or pause', play: 'Play', pause: 'Pause', restart: 'Restart the song' } as const;
const SECTION_WORDS = { next: 'Next section', previous: 'Previous section', again: 'Section again', last: 'Last section' } as const; // prettier-ignore
export const TEMPO_WORDS = { faster: '1 bpm faster', slower: '1 bpm slower', half: 'Half the tempo', double: 'Double the tempo', one: 'Bar starts now' } as const; // prettier-ignore

export const lookName = ({ looks, chases }: Pick<Show, 'looks' | 'chases'>, id: string): string =>
  [...looks, ...chases].find((one) => one.id === id)?.name ?? 'A look that is gone';
export const roleName = (show: Pick<Show, 'roles'>, role: string): string => show.roles.find(({ id }) => id === role)?.name ?? 'a role that is gone'; // prettier-ignore
export const hitName = (show: Show, { kit, note }: Extract<Act, { act: 'hit' }>): string =>
  show.kits.find(({ id }) => id === kit)?.hits.find(({ low, high }) => note >= Math.min(low, high) && note <= Math.max(low, high))?.name ?? noteName(note); // prettier-ignore

/** Every act one may choose, the most used first; what can be set further is as it is meant most often. */
export function actsOffered(show: Show): readonly Act[] {
  const acts: object[] = [
    { act: 'stop', way: 'next' },
    { act: 'stop', way: 'previous' },
    { act: 'entry', way: 'next' },
    { act: 'entry', way: 'previous' },
    { act: 'blackout', to: 'toggle' },
    { act: 'blackout', to: 'on' },
    { act: 'blackout', to: 'off' },
    { act: 'go', way: 'next' },
    { act: 'go', way: 'previous' },
    { act: 'turn-bank', way: 'next' },
    { act: 'turn-bank', way: 'previous' },
    ...Array.from({ length: 12 }, (_, i) => ({ act: 'pad', place: i + 1 })),
    ...['toggle', 'play', 'pause', 'restart'].map((does) => ({ act: 'song', does })),
    ...['next', 'previous', 'again', 'last'].map((to) => ({ act: 'section', to })),
    { act: 'loop' },
    { act: 'tap' },
    ...['one', 'faster', 'slower', 'half', 'double'].map((to) => ({ act: 'tempo', to })),
    { act: 'nudge', by: -0.02 },
    { act: 'nudge', by: 0.02 },
    { act: 'all-off' },
    { act: 'release' },
    { act: 'sending', to: 'toggle' },
    ...['half', 'double', 'normal'].map((to) => ({ act: 'speed', to })),
    ...[1, 0.5, 0].map((level) => ({ act: 'master', role: null, level })),
    ...[...show.looks, ...show.chases].flatMap(({ id }) =>
      ['toggle', 'start', 'stop', 'flash'].map((press) => ({ act: 'look', look: id, press })),
    ),
    ...banksOf(show).map(({ id }) => ({ act: 'bank', bank: id })),
    ...show.songs.map(({ id }) => ({ act: 'play', song: id })),
    ...show.kits.flatMap((kit) =>
      kit.channels.flatMap(({ role }) =>
        kit.hits.map(({ low, high }) => ({ act: 'hit', kit: kit.id, role, note: Math.min(low, high) })),
      ),
    ),
    ...show.roles.flatMap(({ id }) => [1, 0.5, 0].map((level) => ({ act: 'master', role: id, level }))),
    ...show.roles.flatMap(({ id }) =>
      show.aims.map((aim) => ({ act: 'hand', values: [{ role: id, aim: { type: 'hold', value: { aim: aim.id } } }] })),
    ),
  ];
  return acts.map((one) => Act.parse(one));
}

/** Those whose name has every word that was typed. */
export function actsFound(show: Show, acts: readonly Act[], typed: string): readonly Act[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return acts;
  return acts.filter((act) => {
    const name = actName(show, act).toLowerCase();
    return words.every((word) => name.includes(word));
  });
}
