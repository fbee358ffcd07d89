// Which beat it is: the song's while one plays, else the free clock's.

import type { Song } from '@hovlix/core/song';
import { songTimeAt, type LiveState } from '@hovlix/core/live';
import { barAt, beatAt, meterAtBar, pulseLength, pulsesInBar, tempoAt } from '@hovlix/core/time';
import type { Seconds } from '@hovlix/core/units';

/** `bpm` counts pulses; `lit` is the dot of the pulse that sounds now, or -1 while all is still; `count` dots make a bar. */
export type Pulse = { readonly bpm: number; readonly lit: number; readonly count: number };

export function pulseAt(live: LiveState, songs: readonly Song[], now: Seconds): Pulse {
  const song = live.song && songs.find((one) => one.id === live.song?.id);
  if (live.song && song) {
    const time = songTimeAt(live.song, now);
    const place = barAt(song.meter, beatAt(song.tempo, time));
    const meter = meterAtBar(song.meter, place.bar);
    // Slowed for rehearsal, or as fast as a DJ player turns.
    const pace = live.song.playing ? live.song.rate : 1;
    const bpm = (tempoAt(song.tempo, time) * pace) / pulseLength(meter);
    return { bpm, lit: live.song.playing && time < song.duration ? place.pulse : -1, count: pulsesInBar(meter) };
  }
  const pulses = ((now - live.tempo.at) * live.tempo.bpm) / 60;
  return { bpm: live.tempo.bpm, lit: !live.tempo.felt ? -1 : ((Math.floor(pulses) % 4) + 4) % 4, count: 4 };
}
