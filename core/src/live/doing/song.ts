// To other places of the song that plays: sections at the next bar line, and loops over them.

import type { SetList } from '../../gig';
import { barsOfSection, sectionAt, timeOfBar, type Section, type Song } from '../../song';
import { barAt, beatAt } from '../../time';
import { seconds, type Seconds } from '../../units';
import type { Action } from '../actions';
import { clockAt, waitFor, type Moment } from '../press';
import { jumpAhead, songAt, songTimeAt } from '../song-clock';
import { barNow, sectionNow, songNow } from './place';

export const sectionOfTime = (song: Song, time: Seconds): Section | undefined =>
  sectionAt(song, barAt(song.meter, beatAt(song.tempo, time)).bar);

/** The section that a word means, from where one is, or where a jump that is on its way leads. */
export function sectionMeant(moment: Moment, to: 'next' | 'previous' | 'again' | 'last'): Section | undefined {
  const song = songNow(moment);
  if (!song) return undefined;
  const { sections } = song;
  if (to === 'last') return sections.at(-1);
  const { live, now } = moment;
  const ahead = to === 'again' || !live.song ? undefined : jumpAhead(live.song, now);
  const here = ahead ? sectionOfTime(song, ahead.to) : sectionNow(moment);
  const at = here ? sections.indexOf(here) : -1;
  return sections[to === 'next' ? at + 1 : to === 'again' ? at : at - 1];
}

/** `[from, to)` of a section in seconds; the last one goes to the end of its last bar, or of the music. */
export function spanOfSection(song: Song, bar: number) {
  const { first, last } = barsOfSection(song, bar);
  const from = seconds(Math.max(0, timeOfBar(song, first)));
  const end = timeOfBar(song, last + 1);
  return { from, to: seconds(Math.max(from + 0.1, Math.min(end, song.duration))) };
}

/**
 * On to a section of the song that is on: at the next bar line, or at once. A press just after a bar line is taken as
 * meant for it, and lands as far behind the section's start.
 * The light of the place that is left fades as the set says.
 * @param loops the section then comes again and again.
 */
export function toSection(
  moment: Moment,
  section: Section,
  { jumps, jumpFade }: Pick<SetList, 'jumps' | 'jumpFade'>,
  loops: boolean,
): readonly Action[] {
  const { live, now } = moment;
  const song = songNow(moment);
  if (!song || !live.song) return [];
  const span = spanOfSection(song, section.bar);
  const looping: readonly Action[] = loops
    ? [{ type: 'loop', loop: span }]
    : songAt(live.song, now).loop
      ? [{ type: 'loop', loop: null }]
      : [];
  if (!live.song.playing) return [{ type: 'seek', to: span.from }, ...looping];
  const fade = jumpFade ? { fade: seconds(jumpFade * clockAt(moment).pulse) } : {};
  const wait = jumps === 'bar' ? waitFor(moment, 'bar') : seconds(0);
  const here = songTimeAt(live.song, now);
  if (wait > 0) {
    const when = seconds(here + wait * live.song.rate);
    return [{ type: 'jump', jump: { when, to: span.from, ...(loops ? { loop: span } : {}), ...fade } }];
  }
  const late =
    jumps === 'bar' ? Math.max(0, here - timeOfBar(song, barAt(song.meter, beatAt(song.tempo, here)).bar)) : 0;
  return [{ type: 'seek', to: seconds(Math.min(span.from + late, span.to - 0.05)), ...fade }, ...looping];
}

/** What another machine leads goes its way: a loop and a jump of ours end. */
export const waysEnded = ({ loop, jump }: NonNullable<Moment['live']['song']>): readonly Action[] => [
  ...(loop ? [{ type: 'loop', loop: null } as const] : []),
  ...(jump ? [{ type: 'jump', jump: null } as const] : []),
];

/** Whether the section one is in comes again, or the one that a jump leads to. */
export function loopsNow({ live, now }: Pick<Moment, 'live' | 'now'>): boolean {
  if (!live.song) return false;
  return (jumpAhead(live.song, now) ?? songAt(live.song, now)).loop !== undefined;
}

/** Loops the section one is in, or ends the loop; where a jump is on its way, that of the section it leads to. */
export function loopTurned(moment: Moment): readonly Action[] {
  const { live, now } = moment;
  const song = songNow(moment);
  if (!song || !live.song) return [];
  const ahead = jumpAhead(live.song, now);
  const span = (bar: number) => (loopsNow(moment) ? undefined : spanOfSection(song, bar));
  if (!ahead) return [{ type: 'loop', loop: span(barNow(moment, song)) ?? null }];
  const { loop: _, ...straight } = ahead;
  const loop = span(barAt(song.meter, beatAt(song.tempo, ahead.to)).bar);
  return [{ type: 'jump', jump: { ...straight, ...(loop ? { loop } : {}) } }];
}
