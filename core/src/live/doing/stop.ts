// On to a stop of the set, or back: what is done there.

import { setInUse, type Stop } from '../../gig';
import type { Song } from '../../song';
import { seconds } from '../../units';
import type { Action } from '../actions';
import { cardAction, lookOnAction, type Moment } from '../press';
import { jumpAhead, songTimeAt } from '../song-clock';
import { placeAt, songNow } from './place';
import { spanOfSection, toSection } from './song';

/** A slip is repaired within this, in seconds. */
const REPAIR_SECONDS = 30;
/** How long the light takes to go where it shall be dark between songs. */
const DARK_SECONDS = seconds(1);

/** All that going to a stop does, in order. */
export function toStop(moment: Moment, stop: Stop): readonly Action[] {
  const { set } = placeAt(moment);
  const place: Action = { type: 'set-place', set: set.id, entry: stop.entry.id, stop: stop.id };
  const { live } = moment;
  switch (stop.at) {
    case 'ready':
      return [place, ...ready(moment, stop)];
    case 'song':
      return [place, { type: 'play', song: stop.song.id, from: seconds(0) }];
    case 'section': {
      if (live.song?.playing && live.song.id === stop.song.id)
        return [place, ...toSection(moment, stop.section, set, true)];
      const span = spanOfSection(stop.song, stop.section.bar);
      return [place, { type: 'play', song: stop.song.id, from: span.from }, { type: 'loop', loop: span }];
    }
    case 'look': {
      const leaves: readonly Action[] = live.song?.playing ? [{ type: 'open-song', song: null, from: seconds(0) }] : [];
      const on = stop.bank === null ? cardAction(moment, stop.look, true) : lookOnAction(moment, stop.look);
      if (on?.type === 'look-on' && stop.bank !== null) {
        const { type: _, ...coming } = on;
        return [place, ...leaves, { type: 'go', bank: stop.bank, ...coming }];
      }
      return [place, ...leaves, ...(on ? [on] : [])];
    }
    case 'dark':
      return [place, { type: 'open-song', song: null, from: seconds(0) }, { type: 'all-off', fade: DARK_SECONDS }];
    case 'pause':
      return [place, { type: 'open-song', song: null, from: seconds(0) }];
  }
}

/** A song is next: it is chosen, with what shall be on before it begins. */
function ready(moment: Moment, { entry, song }: Extract<Stop, { at: 'ready' }>): readonly Action[] {
  if (entry.kind !== 'song') return [];
  const { bank, tempo, start } = entry;
  const actions: Action[] = [{ type: 'open-song', song: song.id, from: seconds(0), unlit: true }];
  if (bank !== undefined) actions.push({ type: 'bank', bank });
  if (tempo !== undefined) actions.push({ type: 'tempo', bpm: tempo });
  if (start.with === 'dark') actions.push({ type: 'all-off', fade: DARK_SECONDS });
  const look = start.with === 'look' ? cardAction(moment, start.look, true) : undefined;
  return look ? [...actions, look] : actions;
}

/** Nothing is in tonight's set: the way through it is then the way through the looks of the bank. */
export const hasNoStops = (moment: Moment): boolean => placeAt(moment).stops.length === 0;

/** The stop that is next, or before; undefined at the ends of the set. */
export function stopBeside(moment: Moment, way: 'next' | 'previous'): Stop | undefined {
  const { stops, at } = placeAt(moment);
  return stops[way === 'next' ? at + 1 : at - 1];
}

/** The first stop of the next or previous entry. */
export function entryBeside(moment: Moment, way: 'next' | 'previous'): Stop | undefined {
  const { stops, at, set } = placeAt(moment);
  const here = set.entries.findIndex(({ id }) => id === stops[at]?.entry.id);
  const others = way === 'next' ? set.entries.slice(here + 1) : set.entries.slice(0, Math.max(0, here)).reverse();
  for (const { id } of others) {
    const first = stops.find(({ entry }) => entry.id === id);
    if (first) return first;
  }
  return undefined;
}

/** What was left by the last step, while that can be repaired: going back leads there. */
export function leftNow({ show, live, now }: Moment) {
  const left = live.set?.set === setInUse(show).id ? live.set?.left : undefined;
  return left && now - left.at <= REPAIR_SECONDS ? left : undefined;
}

/**
 * One stop back. After a slip that is where one came from, and a song that was cut off goes on where it would be by now.
 * Empty where there is nothing before.
 */
export function back(moment: Moment): readonly Action[] {
  const { live, now } = moment;
  const { set, stops } = placeAt(moment);
  const left = leftNow(moment);
  const from = left && stops.find(({ id }) => id === left.stop);
  if (!left || !from) {
    const before = stopBeside(moment, 'previous');
    return before ? repairing(toStop(moment, before)) : [];
  }
  const place: Action = { type: 'set-place', set: set.id, entry: from.entry.id, stop: from.id, repair: true };
  if (left.song && live.song?.id === left.song.id && live.song.playing) {
    if (jumpAhead(live.song, now)) return [place, { type: 'jump', jump: left.song.jump ?? null }];
    return repairing(toStop(moment, from));
  }
  if (!left.song) return repairing(toStop(moment, from));
  const { id, loop } = left.song;
  const again: Action = { type: 'play', song: id, from: songTimeAt(left.song, now) };
  return loop ? [place, again, { type: 'loop', loop }] : [place, again];
}

/** What is gone back to is no slip that one could go back from in turn. */
const repairing = (actions: readonly Action[]): readonly Action[] =>
  actions.map((action) => (action.type === 'set-place' ? { ...action, repair: true } : action));

/** What the end of a song leads to by itself, as its set says; undefined where it says nothing, or no set is played. */
export function afterSong(moment: Moment): Stop | undefined {
  const { set, stops, at } = placeAt(moment);
  const here = stops[at];
  if (moment.live.set?.set !== set.id || set.after === 'wait' || !here) return undefined;
  const next = stops.find(({ entry, at: kind }, i) => i > at && entry.id !== here.entry.id && kind !== 'dark');
  if (!next) return undefined;
  const begins = set.after === 'play' && next.at === 'ready';
  return begins ? (stops.find(({ entry, at: kind }) => entry.id === next.entry.id && kind !== 'ready') ?? next) : next;
}

/** What is done there. A song that is only ready, with nothing that shall be on, leaves the light of the one before. */
function afterSongActions(moment: Moment, stop: Stop): readonly Action[] {
  const actions = toStop(moment, stop);
  const keeps = stop.at === 'ready' && stop.entry.kind === 'song' && stop.entry.start.with === 'keep';
  return keeps ? actions.filter(({ type }) => type !== 'open-song') : actions;
}

/** What the end of the song that plays leads to: the next song where it says so, else it stops, and its set goes on as it says. */
export function overActions(moment: Moment): readonly Action[] {
  const song = songNow(moment);
  if (!song) return [{ type: 'pause' }];
  const stop = afterSong(moment);
  const { songs } = moment.show;
  const next = stop && 'song' in stop ? stop.song : songs[songs.indexOf(song) + 1];
  if (song.ending?.then === 'next' && next) return [{ type: 'play', song: next.id, from: seconds(0) }];
  // Files end a little before or after what was counted.
  const stops: readonly Action[] = [{ type: 'seek', to: song.duration }, { type: 'pause' }];
  return stop ? [...stops, ...afterSongActions(moment, stop)] : stops;
}

/** The song that most likely comes after the one that is on: what its end leads to, else the next one of the set. */
export function songAfter(moment: Moment): Song | undefined {
  const song = songNow(moment);
  if (!song) return undefined;
  const begins = overActions(moment).find((action) => action.type === 'play' || action.type === 'open-song');
  const { stops, at } = placeAt(moment);
  const later = stops.slice(at + 1).find((stop) => 'song' in stop && stop.song.id !== song.id);
  const after = begins?.song ?? (later && 'song' in later ? later.song.id : undefined);
  return moment.show.songs.find(({ id }) => id === after);
}
