// What a press means, in one place, whether it came from a key, a card or a pad.

import type { Song } from '@hovlix/core/song';
import { tempoAt } from '@hovlix/core/time';
import { songTimeAt } from '@hovlix/core/live';
import { seconds, type Id } from '@hovlix/core/units';
import type { Hovlix } from './hovlix';

/** Play or pause: the song that is open, else the first of the show. */
export function togglePlay(app: Hovlix, wanted?: Song): void {
  const { live } = app.conducting.store.getState();
  const show = app.document.store.getState().history?.show;
  const song = wanted ?? show?.songs.find((one) => one.id === live.song?.id) ?? show?.songs[0];
  if (!song) return;
  if (live.song?.playing && live.song.id === song.id) app.player.pause();
  else void app.player.play(song);
}

/** A look on or off, fading as it says, in beats of what is heard now. */
export function toggleLook(app: Hovlix, id: Id<'Look'>): void {
  const { live } = app.conducting.store.getState();
  const look = app.document.store.getState().history?.show.looks.find((one) => one.id === id);
  if (!look) return;
  const on = !live.standing.some((one) => one.look === id && one.on);
  const fade = seconds(((on ? look.fadeIn : look.fadeOut) * 60) / quarterTempo(app));
  app.conducting.act({ type: on ? 'look-on' : 'look-off', look: id, fade });
}

/** Only this look: all others that stand fade out with it. */
export function onlyLook(app: Hovlix, id: Id<'Look'>): void {
  const { live } = app.conducting.store.getState();
  const look = app.document.store.getState().history?.show.looks.find((one) => one.id === id);
  if (!look) return;
  const fade = seconds((look.fadeIn * 60) / quarterTempo(app));
  app.conducting.act({ type: 'look-on', look: id, fade });
  for (const one of live.standing)
    if (one.on && one.look !== id) app.conducting.act({ type: 'look-off', look: one.look, fade });
}

function quarterTempo(app: Hovlix): number {
  const { live } = app.conducting.store.getState();
  const song = app.document.store.getState().history?.show.songs.find((one) => one.id === live.song?.id);
  if (!song || !live.song?.playing) return live.tempo.bpm;
  return tempoAt(song.tempo, songTimeAt(live.song, app.conducting.now()));
}
