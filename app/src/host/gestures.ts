// What a press means, in one place, whether it came from a key, a card or a pad.

import type { Song } from '@hovlix/core/song';
import { banksOf, padAfter, type Bank, type Chase, type Look, type Pad } from '@hovlix/core/light';
import { beatAt, tempoAt } from '@hovlix/core/time';
import { freeBeat, isOn, songTimeAt } from '@hovlix/core/live';
import { seconds, type Beats, type Id, type Seconds } from '@hovlix/core/units';
import type { Hovlix } from './hovlix';
import { useSession } from './session';

/** Play or pause: the song that is open, else the first of the show. */
export function togglePlay(app: Hovlix, wanted?: Song): void {
  const { live } = app.conducting.store.getState();
  const show = app.document.store.getState().history?.show;
  const song = wanted ?? show?.songs.find((one) => one.id === live.song?.id) ?? show?.songs[0];
  if (!song) return;
  if (live.song?.playing && live.song.id === song.id) app.player.pause();
  else void app.player.play(song);
}

/** Dark, or light again: at once or in a fade, as this screen is set. */
export function toggleBlackout(app: Hovlix): void {
  const { live } = app.conducting.store.getState();
  const fade = seconds(useSession.getState().blackoutFade);
  app.conducting.act({ type: 'blackout', on: !live.blackout.on, fade });
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
  if (look) app.conducting.act({ type: 'look-on', ...coming(app, look) });
}

/** How a look comes on now, as it says itself, in beats of what is heard. */
function coming(app: Hovlix, look: Look | Chase) {
  const { beat, pulse } = clockNow(app);
  const hold = 'hold' in look ? look.hold : undefined;
  return {
    look: look.id,
    fade: seconds(look.fadeIn * pulse),
    beat,
    pulse,
    ...(hold === undefined ? {} : { hold: seconds(hold * pulse), out: seconds(look.fadeOut * pulse) }),
  };
}

/** A pad is pressed; what lets go of a flash is `padUp`. */
export function padDown(app: Hovlix, pad: Pad, banks: readonly Bank[]): void {
  const { live } = app.conducting.store.getState();
  const now = app.conducting.now();
  const stands = live.standing.some((one) => one.look === pad.look && isOn(one, now));
  const goesOff = pad.press === 'stop' || (pad.press === 'toggle' && stands);
  if (goesOff) return lookOff(app, pad.look);
  if (pad.press === 'flash') {
    const { beat, pulse } = clockNow(app);
    return app.conducting.act({ type: 'look-on', look: pad.look, fade: seconds(0), beat, pulse });
  }
  if (stands) return;
  const look = playOf(app, pad.look);
  if (look?.clean) return onlyLook(app, pad.look);
  lookOn(app, pad.look);
  if (pad.group === undefined || !look) return;
  const { pulse } = clockNow(app);
  const others = banks.flatMap(({ pads }) => pads).filter((one) => one.group === pad.group && one.look !== pad.look);
  for (const one of live.standing)
    if (one.on && others.some((other) => other.look === one.look))
      app.conducting.act({ type: 'look-off', look: one.look, fade: seconds(look.fadeIn * pulse), pulse });
}

export function padUp(app: Hovlix, pad: Pad): void {
  if (pad.press === 'flash') app.conducting.act({ type: 'look-off', look: pad.look, fade: seconds(0) });
}

/** The banks of the open show, and the one that one is in. */
export function banksNow(app: Hovlix): { readonly banks: readonly Bank[]; readonly bank: Bank | undefined } {
  const show = app.document.store.getState().history?.show;
  const banks = show ? banksOf(show) : [];
  const { place } = app.conducting.store.getState().live;
  return { banks, bank: banks.find(({ id }) => id === place.bank) ?? banks[0] };
}

/** On to the next pad of the bank, or back to the one before. @returns false at its end. */
export function goOn(app: Hovlix, way: 1 | -1): boolean {
  const { banks, bank } = banksNow(app);
  const { place } = app.conducting.store.getState().live;
  const to = bank && padAfter(banks, bank, place.look, way);
  const look = to && playOf(app, to.pad.look);
  if (!look) return false;
  app.conducting.act({ type: 'go', bank: to.bank.id, ...coming(app, look) });
  return true;
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
