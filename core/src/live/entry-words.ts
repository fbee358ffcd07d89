// The log in words: what was pressed, for people who ask what just happened.

import { actName, lookName, roleName } from './doing/act-names';
import { handWords } from './doing/by-hand';
import { placeAt, stopWords } from './doing';
import type { Show } from '../show';
import type { Entry } from './actions';
import { AT_REST } from './live-state';

/** What an entry was; undefined for what no one pressed: sound that is corrected, microphones, screens that come and go. */
export function entryWords(show: Show, { action, at }: Entry): string | undefined {
  const look = (id: string) => lookName(show, id);
  const song = (id: string) => show.songs.find((one) => one.id === id)?.title ?? 'a song that is gone';
  const role = (id: string) => roleName(show, id);
  const percent = (level: number) => `${Math.round(level * 100)} %`;
  switch (action.type) {
    case 'open-song':
      return action.song === null ? 'Song put away' : `${song(action.song)} chosen`;
    case 'play':
      return `${song(action.song)} played${action.from > 0.5 ? ` from ${clock(action.from)}` : ''}`;
    case 'pause':
      return 'Song stopped';
    case 'seek':
      return `Song moved to ${clock(action.to)}`;
    case 'loop':
      return action.loop ? `Loop from ${clock(action.loop.from)} to ${clock(action.loop.to)}` : 'Loop ended';
    case 'jump':
      return action.jump ? `Jump to ${clock(action.jump.to)} at the next bar` : 'Jump taken back';
    case 'set-place': {
      const { stops } = placeAt({ show, live: { ...AT_REST, set: { ...action, since: at, began: at } }, now: at });
      const stop = stops.find(({ id }) => id === action.stop);
      return `${action.repair ? 'Back to' : 'On to'} ${stopWords(show, stop) || 'a place that is gone'}`;
    }
    case 'look-on':
      return `${look(action.look)} on`;
    case 'look-off':
      return `${look(action.look)} off`;
    case 'go':
      return `Went to ${look(action.look)}`;
    case 'pad':
      return action.down ? `Pad ${look(action.look)} pressed${action.wait ? ', waits for the beat' : ''}` : undefined;
    case 'bank':
      return actName(show, { act: 'bank', bank: action.bank });
    case 'all-off':
      return 'All looks off';
    case 'step':
      return `${look(action.look)}: step ${action.by > 0 ? 'on' : 'back'}`;
    case 'speed':
      return `${action.look ? look(action.look) : 'Waves and chases'}: ${Math.round(action.rate * 100)} % of their speed`;
    case 'fade-times':
      return `Fade times × ${action.factor}`;
    case 'role-master':
      return `Master of ${role(action.role)} ${percent(action.level)}`;
    case 'master':
      return `Grand master ${percent(action.level)}`;
    case 'hand':
      return handWords(show, action);
    case 'choose':
      return action.roles.length === 0 ? 'No role chosen' : `Chosen: ${action.roles.map(role).join(', ')}`;
    case 'release':
      return action.role ? `${role(action.role)} released` : 'Released';
    case 'blackout':
      return action.on ? 'Blackout' : 'Blackout over';
    case 'freeze':
      return action.on ? 'Light frozen' : 'Light goes on';
    case 'sending':
      return action.on ? 'Master output on' : 'Master output off';
    case 'notes': {
      const struck = action.notes.filter(({ velocity }) => velocity > 0).length;
      return struck > 0 ? `${struck} ${struck === 1 ? 'hit' : 'hits'} struck` : undefined;
    }
    case 'tap':
      return 'Tempo tapped';
    case 'tempo':
      return `Tempo ${Math.round(action.bpm * 10) / 10} bpm`;
    case 'nudge':
      return `Beats moved ${Math.round(action.by * 1000)} ms`;
    case 'hold-channels':
      return action.length === undefined ? undefined : `Lamp control sent for ${Math.round(action.length)} s`;
    case 'show-on':
      return 'Another show put on';
    default:
      return undefined;
  }
}

function clock(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

export type ToldLine = { readonly at: number; readonly who: string; readonly words: string; readonly times: number };

/** A log as lines, the newest first; the same thing again within two seconds, as a fader moves, is one line. */
export function toldLines(show: Show, entries: readonly Entry[], most: number): readonly ToldLine[] {
  const lines: ToldLine[] = [];
  for (let i = entries.length - 1; i >= 0 && lines.length < most; i--) {
    const entry = entries[i]!;
    const words = entryWords(show, entry);
    if (words === undefined) continue;
    const last = lines.at(-1);
    const same = last && last.who === entry.who && last.at - entry.at < 2 && kind(last.words) === kind(words);
    if (same) lines[lines.length - 1] = { ...last, times: last.times + 1 };
    else lines.push({ at: entry.at, who: entry.who, words, times: 1 });
  }
  return lines;
}

/** Words without their figures. */
const kind = (words: string): string => words.replace(/[\d.:%×]+/g, '');
