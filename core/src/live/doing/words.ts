// What an act will do now, in as few words as can be read from two metres.

import type { Act, Stop } from '../../gig';
import { padAfter } from '../../light';
import { never } from '../../problem';
import type { Show } from '../../show';
import { actName, hitName, lookName, roleName, TEMPO_WORDS } from './act-names';
import { handWords } from './by-hand';
import { bankBeside, banksAt, type Moment } from '../press';
import { isFrozen } from '../frozen';
import { isOn } from '../standing';
import { chosenAfter, chosenNow } from './chosen';
import { isArmed } from './lamp-acts';
import { loopsNow, sectionMeant } from './song';
import { entryBeside, hasNoStops, leftNow, stopBeside } from './stop';
import { placeAt } from './place';

/** @returns an empty text where it would do nothing now. */
export function wordsNow(moment: Moment, act: Act): string {
  const { live, show } = moment;
  switch (act.act) {
    case 'look': {
      const on = live.standing.some((one) => one.look === act.look && isOn(one, moment.now));
      const name = lookName(show, act.look);
      return act.press === 'stop' || (act.press === 'toggle' && on) ? `${name} off` : name;
    }
    case 'pad': {
      const pad = banksAt(moment).bank?.pads[act.place - 1];
      return pad ? wordsNow(moment, { act: 'look', look: pad.look, press: pad.press }) : '';
    }
    case 'go': {
      const { banks, bank } = banksAt(moment);
      const to = bank && padAfter(banks, bank, live.place.look, act.way === 'next' ? 1 : -1);
      return to ? lookName(show, to.pad.look) : '';
    }
    case 'bank':
      return `Bank ${show.banks.find(({ id }) => id === act.bank)?.name ?? ''}`;
    case 'turn-bank': {
      const to = bankBeside(moment, act.way);
      return to ? `Bank ${to.name}` : '';
    }
    case 'stop': {
      if (hasNoStops(moment)) return wordsNow(moment, { ...act, act: 'go' });
      if (act.way === 'next') return stopWords(show, stopBeside(moment, 'next'));
      const left = leftNow(moment)?.stop;
      const from = placeAt(moment).stops.find(({ id }) => id === left) ?? stopBeside(moment, 'previous');
      return from ? backWords(moment, from) : '';
    }
    case 'entry':
      return stopWords(show, entryBeside(moment, act.way));
    case 'song':
      return songWords(moment, act.does);
    case 'play':
      return `Play ${show.songs.find(({ id }) => id === act.song)?.title ?? ''}`;
    case 'section': {
      const section = sectionMeant(moment, act.to);
      return section ? `${act.to === 'again' ? 'Again: ' : ''}${section.name}` : '';
    }
    case 'loop':
      return !live.song ? '' : loopsNow(moment) ? 'End the loop' : 'Loop this section';
    case 'blackout':
      return act.to === 'off' || (act.to === 'toggle' && live.blackout.on) ? 'Light again' : 'Blackout';
    case 'freeze':
      return act.to === 'off' || (act.to === 'toggle' && isFrozen(live)) ? 'End the freeze' : 'Freeze';
    case 'sending':
      return act.to === 'off' || (act.to === 'toggle' && live.sending) ? 'Stop sending' : 'Send';
    case 'choose': {
      const after = chosenAfter(moment, act).map((role) => roleName(show, role));
      return after.length === 0 ? 'Choose no role' : `Choose ${after.join(', ')}`;
    }
    case 'chosen':
      return chosenNow(moment).length > 0 ? actName(show, act) : '';
    case 'lamps':
      return isArmed(live, act, moment.now) ? actName(show, act) : `${actName(show, act)}: press twice`;
    default:
      return plainWords(show, act);
  }
}

/** Back to what: from a song that plays to its start is a stop. */
function backWords({ show, live }: Moment, from: Stop): string {
  if (!('song' in from) || from.at === 'section') return `Back to ${stopWords(show, from)}`;
  const plays = live.song?.playing && live.song.id === from.song.id;
  return plays && from.at === 'ready' ? `Stop ${from.song.title}` : `Back to ${from.song.title}`;
}

type Plain = Exclude<
  Act,
  {
    act:
      | 'look'
      | 'pad'
      | 'go'
      | 'bank'
      | 'turn-bank'
      | 'stop'
      | 'entry'
      | 'song'
      | 'play'
      | 'section'
      | 'loop'
      | 'blackout'
      | 'freeze'
      | 'sending'
      | 'lamps'
      | 'choose'
      | 'chosen';
  }
>;

/** Acts that mean the same at any moment. */
function plainWords(show: Show, act: Plain): string {
  switch (act.act) {
    case 'tap':
      return 'Tap';
    case 'tempo':
      return TEMPO_WORDS[act.to];
    case 'nudge':
      return `Beats ${Math.round(Math.abs(act.by) * 1000)} ms ${act.by < 0 ? 'earlier' : 'later'}`;
    case 'master':
      return `${act.role === null ? 'Master' : roleName(show, act.role)} ${Math.round(act.level * 100)} %`;
    case 'release':
      return 'Release';
    case 'all-off':
      return 'All looks off';
    case 'hit':
      return hitName(show, act);
    case 'speed':
      return act.to === 'normal' ? 'Normal speed' : act.to === 'half' ? 'Half speed' : 'Double speed';
    case 'hand':
      return handWords(show, act);
    case 'lock':
    case 'store':
      return actName(show, act);
    default:
      return never(act);
  }
}

/** A stop of the set, as what going there does. */
export function stopWords(show: Pick<Show, 'looks' | 'chases'>, stop: Stop | undefined): string {
  switch (stop?.at) {
    case undefined:
      return '';
    case 'ready':
      return `Ready: ${stop.song.title}`;
    case 'song':
      return `Play ${stop.song.title}`;
    case 'section':
      return stop.section.name;
    case 'look':
      return lookName(show, stop.look);
    case 'dark':
      return 'Dark';
    case 'pause':
      return stop.minutes > 0 ? `Pause, ${stop.minutes} min` : 'Pause';
  }
}

/** Several acts of one press: what the first of them that does something will do, and how many more there are. */
export function pressWords(moment: Moment, acts: readonly Act[]): string {
  const all = acts.map((act) => wordsNow(moment, act)).filter(Boolean);
  return all.length <= 1
    ? (all[0] ?? '')
    : all.slice(0, 2).join(' + ') + (all.length > 2 ? ` + ${all.length - 2}` : '');
}

function songWords({ live, show }: Moment, does: 'toggle' | 'play' | 'pause' | 'restart'): string {
  const title = show.songs.find(({ id }) => id === live.song?.id)?.title ?? show.songs[0]?.title ?? '';
  const plays = live.song?.playing === true;
  if (does === 'pause' || (does === 'toggle' && plays)) return plays ? `Pause ${title}` : '';
  return does === 'restart' ? `Restart ${title}` : plays && does === 'play' ? '' : `Play ${title}`;
}
