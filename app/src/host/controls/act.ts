// Does what a press means: light goes to the conductor, songs through the player of this screen.

import { actionsSince, inTurn } from '@hovlix/core/gear';
import type { Act } from '@hovlix/core/gig';
import type { Action } from '@hovlix/core/live';
import type { Bank, Pad } from '@hovlix/core/light';
import { storeNow, turnLock } from './of-the-screen';
import { padDown, type Stage } from '../conduct/gestures';
import { localSeconds } from '../conduct/local-clock';
import { momentOfPress } from '../conduct/moment';
import type { Player } from '../sound/player';
import { bareHostOf } from './bare-host';

export type Playing = Stage & { readonly player: Player };

/** One after the other: a loop comes after the song it is over has begun. */
export async function run(stage: Playing, actions: readonly Action[]): Promise<void> {
  const { conducting, player } = stage;
  for (const action of actions) {
    const songs = stage.document.store.getState().show?.songs ?? [];
    const songOf = (id: string | undefined) => songs.find((one) => one.id === id);
    if (action.type === 'play') {
      const song = songOf(action.song);
      if (song) await player.play(song, action.from);
    } else if (action.type === 'pause') player.pause();
    else if (action.type === 'seek') {
      const song = songOf(conducting.store.getState().live.song?.id);
      if (song) player.seek(song, action.to, action.fade);
    } else conducting.act(action);
  }
}

/** A pad goes down: its look, and what else it does. */
export function pressPad(stage: Playing, pad: Pad, banks: readonly Bank[]): void {
  padDown(stage, pad, banks);
  doActs(stage, pad.also ?? []);
}

/** @param at when that was pressed, by the page's clock. @returns whether there was something to do now. */
export function doAct(stage: Playing, act: Act, down = true, at = localSeconds()): boolean {
  const moment = momentOfPress(stage);
  if (act.act === 'lock') return down && turnLock(act.to);
  if (act.act === 'store') {
    if (down && moment) void storeNow(stage, moment);
    return down && moment !== undefined;
  }
  const actions = moment ? actionsSince(moment, act, down, localSeconds() - at) : [];
  void run(stage, actions);
  return actions.length > 0;
}

/** Several in their order, those that wait when their beats have passed. */
export function doActs(stage: Playing, acts: readonly Act[], down = true, at?: number): void {
  inTurn(bareHostOf(stage), acts, (act) => doAct(stage, act, down, at));
}
