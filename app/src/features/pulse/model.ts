// Which beat it is: the song's while one plays, else the free clock's.

import type { Song } from '@hovlix/core/song';
import { songTimeAt, type LiveState } from '@hovlix/core/live';
import { barAt, beatAt, meterAtBar, pulseLength, pulsesInBar, tempoAt } from '@hovlix/core/time';
import type { Seconds } from '@hovlix/core/units';

/**
 * `bpm` counts pulses; `lit` is the dot of the pulse that sounds now, or -1 while all is still; `count` dots make a bar;
 * `next` is how many seconds it is to the next pulse, if all goes on as it does.
 */
export type Pulse = { readonly bpm: number; readonly lit: number; readonly count: number; readonly next: number };

export function pulseAt(live: LiveState, songs: readonly Song[], now: Seconds): Pulse {
  const song = live.song && songs.find((one) => one.id === live.song?.id);
  if (live.song && song) {
    const time = songTimeAt(live.song, now);
    const place = barAt(song.meter, beatAt(song.tempo, time));
    const meter = meterAtBar(song.meter, place.bar);
    // Slowed for rehearsal, or as fast as a DJ player turns.
    const pace = live.song.playing ? live.song.rate : 1;
    const bpm = (tempoAt(song.tempo, time) * pace) / pulseLength(meter);
    const lit = live.song.playing && time < song.duration ? place.pulse : -1;
    return { bpm, lit, count: pulsesInBar(meter), next: ((1 - place.fraction) * 60) / bpm };
  }
  const pulses = ((now - live.tempo.at) * live.tempo.bpm) / 60;
  const whole = Math.floor(pulses);
  const lit = live.tempo.felt ? ((whole % 4) + 4) % 4 : -1;
  return { bpm: live.tempo.bpm, lit, count: 4, next: ((1 - (pulses - whole)) * 60) / live.tempo.bpm };
}
