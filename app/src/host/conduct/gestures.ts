// Presses of this screen, whether they came from a key, a card or a pad: what they mean is worked out in core.

import { tapMade } from '@hovlix/core/gear';
import type { Bank, Pad } from '@hovlix/core/light';
import {
  banksAt,
  cardAction,
  clockAt,
  goAction,
  lookOffAction,
  lookOnAction,
  padAction,
  type Action,
  type Moment,
} from '@hovlix/core/live';
import type { Song } from '@hovlix/core/song';
import { seconds, type Beats, type Id, type Seconds } from '@hovlix/core/units';
import { useSession } from '../session';
import type { Player } from '../sound/player';
import { localSeconds, whenOf } from './local-clock';
import { momentOf, momentOfPress, type Stage } from './moment';

export { momentOf, type Stage } from './moment';

function pressed(stage: Stage, action: (moment: Moment) => Action | undefined): boolean {
  const moment = momentOfPress(stage);
  const pressed = moment && action(moment);
  if (pressed) stage.conducting.act(pressed);
  return pressed !== undefined;
}

/** Play or pause: the song that is wanted, else the one that is chosen, else the first of the show. */
export function togglePlay(stage: Stage & { readonly player: Player }, wanted?: Song): void {
  const moment = momentOf(stage);
  if (!moment) return;
  const { show, live } = moment;
  const song = wanted ?? show.songs.find((one) => one.id === live.song?.id) ?? show.songs[0];
  if (!song) return;
  if (live.song?.playing && live.song.id === song.id) stage.player.pause();
  else void stage.player.play(song);
}

/** The tempo is tapped, also while no show is open. */
export function tapTempo({ conducting }: Pick<Stage, 'conducting'>, event: { readonly timeStamp: number }): void {
  for (const tap of tapMade(localSeconds() - whenOf(event))) conducting.act(tap);
}

/** Dark, or light again: at once or in a fade, as this screen is set. */
export function toggleBlackout({ conducting }: Pick<Stage, 'conducting'>): void {
  const fade = seconds(useSession.getState().blackoutFade);
  conducting.act({ type: 'blackout', on: !conducting.foreseen().blackout.on, fade });
}

/** A look or a chase on or off, fading as it says, in beats of what is heard now. */
export const toggleLook = (stage: Stage, id: Id<'Look'>) => pressed(stage, (moment) => cardAction(moment, id));

/** Only this look: all others that stand fade out with it. */
export const onlyLook = (stage: Stage, id: Id<'Look'>) => pressed(stage, (moment) => cardAction(moment, id, true));

export const lookOn = (stage: Stage, id: Id<'Look'>) => pressed(stage, (moment) => lookOnAction(moment, id));
export const lookOff = (stage: Stage, id: Id<'Look'>) => pressed(stage, (moment) => lookOffAction(moment, id));

/** A pad is pressed; what lets go of one that is held is `padUp`. */
export const padDown = (stage: Stage, pad: Pad, banks: readonly Bank[]) =>
  pressed(stage, (moment) => padAction(moment, pad, banks));

export const padUp = (stage: Stage, pad: Pad) =>
  pad.press === 'flash' && pressed(stage, (moment) => padAction(moment, pad, [], false));

/** The keys of the first pads of a bank: those that do nothing else. */
export const PAD_KEYS = [...'123456789qweruioasdfjkl'];

/** The banks of the open show, and the one that one is in. */
export function banksNow(stage: Stage): { readonly banks: readonly Bank[]; readonly bank: Bank | undefined } {
  const moment = momentOf(stage);
  return moment ? banksAt(moment) : { banks: [], bank: undefined };
}

/** On to the next pad of the bank, or back to the one before. @returns false at its end. */
export const goOn = (stage: Stage, way: 1 | -1): boolean => pressed(stage, (moment) => goAction(moment, way));

/** Where the clock is, in beats, and how long a beat is: of the song that sounds, else of the free clock. */
export function clockNow(stage: Stage): { readonly beat: Beats; readonly pulse: Seconds } {
  const moment = momentOf(stage);
  if (moment) return clockAt(moment);
  return { beat: 0 as Beats, pulse: seconds(60 / stage.conducting.store.getState().live.tempo.bpm) };
}

/** Looks at a place of a song: the stage shows it too where this screen programs, and nothing plays. */
export function lookAt(
  { conducting, player }: Pick<Stage, 'conducting'> & { readonly player: Player },
  song: Song,
  time: number,
): void {
  const live = conducting.foreseen();
  if (live.programs === conducting.screen && !live.song?.playing) player.seek(song, time);
}
