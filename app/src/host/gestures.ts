// What a press means, in one place, whether it came from a key, a card or a pad.

import type { Song } from '@hovlix/core/song';
import type { Chase, Look } from '@hovlix/core/light';
import { beatAt, tempoAt } from '@hovlix/core/time';
import { freeBeat, isOn, songTimeAt } from '@hovlix/core/live';
import { seconds, type Beats, type Id, type Seconds } from '@hovlix/core/units';
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

/** A look or a chase on or off, fading as it says, in beats of what is heard now. */
export function toggleLook(app: Hovlix, id: Id<'Look'>): void {
  const { live } = app.conducting.store.getState();
  const now = app.conducting.now();
  if (live.standing.some((one) => one.look === id && isOn(one, now))) return lookOff(app, id);
  const look = playOf(app, id);
  if (look?.clean) return onlyLook(app, id);
  lookOn(app, id);
}

/** Only this look: all others that stand fade out with it. */
export function onlyLook(app: Hovlix, id: Id<'Look'>): void {
  const { live } = app.conducting.store.getState();
  const look = playOf(app, id);
  if (!look) return;
  lookOn(app, id);
  const { pulse } = clockNow(app);
  for (const one of live.standing)
    if (one.on && one.look !== id)
      app.conducting.act({ type: 'look-off', look: one.look, fade: seconds(look.fadeIn * pulse), pulse });
}

export function lookOn(app: Hovlix, id: Id<'Look'>): void {
  const look = playOf(app, id);
  if (!look) return;
  const { beat, pulse } = clockNow(app);
  const hold = 'hold' in look ? look.hold : undefined;
  app.conducting.act({
    type: 'look-on',
    look: id,
    fade: seconds(look.fadeIn * pulse),
    beat,
    pulse,
    ...(hold === undefined ? {} : { hold: seconds(hold * pulse), out: seconds(look.fadeOut * pulse) }),
  });
}

export function lookOff(app: Hovlix, id: Id<'Look'>): void {
  const look = playOf(app, id);
  const { pulse } = clockNow(app);
  app.conducting.act({ type: 'look-off', look: id, fade: seconds((look?.fadeOut ?? 0) * pulse), pulse });
}

function playOf(app: Hovlix, id: Id<'Look'>): Look | Chase | undefined {
  const show = app.document.store.getState().history?.show;
  return show && [...show.looks, ...show.chases].find((one) => one.id === id);
}

/** Where the clock stands, in beats, and how long a beat is: of the song that sounds, else of the free clock. */
export function clockNow(app: Hovlix): { readonly beat: Beats; readonly pulse: Seconds } {
  const { live } = app.conducting.store.getState();
  const now = app.conducting.now();
  const song = app.document.store.getState().history?.show.songs.find((one) => one.id === live.song?.id);
  if (!song || !live.song?.playing) return { beat: freeBeat(live, now), pulse: seconds(60 / live.tempo.bpm) };
  const at = songTimeAt(live.song, now);
  return { beat: beatAt(song.tempo, at), pulse: seconds(60 / tempoAt(song.tempo, at)) };
}
