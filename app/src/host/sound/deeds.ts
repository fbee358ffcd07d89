// What a song's action lanes do beside light, as it plays: another song begins, other gear gets its messages.

import { songTimeAt, type LiveState } from '@hovlix/core/live';
import { deedsBetween, playingLanes, type Deed, type Song } from '@hovlix/core/song';
import { beatAt } from '@hovlix/core/time';
import { seconds, type Seconds } from '@hovlix/core/units';
import type { Conducting } from '../conduct/conduct';
import { whilePlaying } from '../conduct/while-playing';
import type { Document } from '../document/document';
import type { Midi } from '../midi/midi';
import type { Player } from './player';

const LOOK_MS = 15;
/**
 * A page that is busy looks again late and does what was passed meanwhile: a song that begins late is better than one that
 * never does. One that looks again after longer than this has slept.
 */
const ASLEEP_SECONDS = 3;
/** A page that comes into a song goes on from there, unless it began this short a while ago. */
const BEGUN_SECONDS = 1;
/** What the sound corrects is less than this. */
const BACK_SECONDS = 0.2;

/** Asked again and again, it tells what was passed since it was asked last; a place that was jumped over is not passed. */
export function passing(): (song: Song | undefined, live: LiveState['song'], now: Seconds) => readonly Deed[] {
  let told: { readonly song: string; readonly since: number; readonly time: number } | undefined;
  return (song, live, now) => {
    if (!song || !live?.playing) {
      told = undefined;
      return [];
    }
    const time = songTimeAt(live, now);
    const goesOn = told?.song === song.id && told.since === live.since;
    // Where it was started, or where it was sought.
    const from = goesOn ? told!.time : live.songTime + (live.since - live.at) * live.rate - 1e-4;
    // Come round in a loop, or sought back: from here on it is passed again.
    if (goesOn && time < from - BACK_SECONDS) told = { song: song.id, since: live.since, time };
    if (goesOn && time <= from) return [];
    told = { song: song.id, since: live.since, time };
    const most = goesOn ? ASLEEP_SECONDS : BEGUN_SECONDS;
    if (time - from > most * Math.max(1, live.rate)) return [];
    return deedsBetween(playingLanes(song.lanes), beatAt(song.tempo, seconds(from)), beatAt(song.tempo, time));
  };
}

/** The screen that plays the music does it; where none sounds, each does what it can. */
export function followDeeds(document: Document, conducting: Conducting, player: Player, midi: Midi): void {
  const passed = passing();
  const look = () => {
    const { live } = conducting.store.getState();
    const show = document.store.getState().show;
    const mine = live.song?.sound === undefined || live.song.sound === conducting.screen;
    const song = mine ? show?.songs.find(({ id }) => id === live.song?.id) : undefined;
    for (const deed of passed(song, live.song, conducting.now())) {
      if (deed.act === 'midi') midi.send(deed.message);
      const next = deed.act === 'song' ? show?.songs.find(({ id }) => id === deed.song) : undefined;
      if (next && next !== song) player.goOn(next);
    }
  };
  whilePlaying(conducting, look, LOOK_MS);
}
