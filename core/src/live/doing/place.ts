// Where in tonight's set one is: which stop, by what was pressed and by what sounds.

import { setInUse, stopsOf, type SetList, type Stop } from '../../gig';
import { barSpan, sectionAt, type Section, type Song } from '../../song';
import { barAt, beatAt } from '../../time';
import { clamp, seconds } from '../../units';
import type { Moment } from '../press';
import { jumpAhead, songTimeAt } from '../song-clock';

export type InSet = {
  readonly set: SetList;
  readonly stops: readonly Stop[];
  /** The stop one is at, -1 before the first. */
  readonly at: number;
};

/** A show does not change, a new one takes its place: its stops are made once, though a page asks many times a second. */
const lines = new WeakMap<Moment['show'], readonly Stop[]>();

export function placeAt(moment: Moment): InSet {
  const { show, live } = moment;
  const set = setInUse(show);
  const stops = lines.get(show) ?? stopsOf(set, show);
  lines.set(show, stops);
  // Another set was chosen since: one is before its first stop.
  const place = live.set?.set === set.id ? live.set : null;
  return { set, stops, at: stopNow(moment, place, stops) };
}

function stopNow(moment: Moment, place: Moment['live']['set'], stops: readonly Stop[]): number {
  const { live } = moment;
  const pressed = pressedStop(place, stops);
  const here = stops[pressed];
  const song = live.song;
  if (!song) return pressed;
  const isHere = here !== undefined && 'song' in here && here.song.id === song.id;
  // A jump that is still to come leads to the stop that was pressed.
  if (isHere && (!song.playing || jumpAhead(song, moment.now))) return pressed;
  // A song that was chosen before this stop was gone to has had its time.
  if (!isHere && !song.playing && place && song.since <= place.since) return pressed;
  const entry = isHere ? here.entry.id : stops.find((stop) => 'song' in stop && stop.song.id === song.id)?.entry.id;
  if (entry === undefined) return pressed;
  if (!song.playing) return stops.findIndex((stop) => stop.entry.id === entry);
  const section = sectionNow(moment)?.id;
  const inSection = stops.findIndex(
    (stop) => stop.entry.id === entry && stop.at === 'section' && stop.section.id === section,
  );
  if (inSection >= 0) return inSection;
  const whole = stops.findIndex((stop) => stop.entry.id === entry && (stop.at === 'song' || stop.at === 'section'));
  return whole >= 0 ? whole : stops.findIndex((stop) => stop.entry.id === entry);
}

/** The stop that was gone to last; the first of its entry where that one is gone. */
function pressedStop(place: Moment['live']['set'], stops: readonly Stop[]): number {
  if (!place) return -1;
  const exact = stops.findIndex(({ id }) => id === place.stop);
  return exact >= 0 ? exact : stops.findIndex(({ entry }) => entry.id === place.entry);
}

/** The song that is on, playing or not. */
export function songNow({ show, live }: Pick<Moment, 'show' | 'live'>): Song | undefined {
  return show.songs.find(({ id }) => id === live.song?.id);
}

/** The section of that song one is in. */
export function sectionNow(moment: Moment): Section | undefined {
  const song = songNow(moment);
  if (!song || !moment.live.song) return undefined;
  return sectionAt(song, barNow(moment, song));
}

/** The bar the song is in. What sounds before its first section, or behind its last bar, belongs to that. */
export function barNow({ live, now }: Moment, song: Song): number {
  const time = live.song ? songTimeAt(live.song, now) : seconds(0);
  const { first, last } = barSpan(song);
  const begins = Math.min(last, Math.max(first, song.sections[0]?.bar ?? first));
  return clamp(barAt(song.meter, beatAt(song.tempo, time)).bar, begins, last);
}
