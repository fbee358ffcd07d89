// A night: three songs, and a stage whose clock is moved by hand.

import { unfit } from '../conduct/fits';
import { Act, SetList } from '../gig';
import { Bank } from '../light';
import { Action, AT_REST, reduced, songTimeAt, type LiveState, type Moment } from '../live';
import { actionsOf, placeAt, wordsNow } from '../live/doing';
import { readShow, type Show } from '../show';
import { Song } from '../song';
import { seconds } from '../units';
import { testShow } from './show';

const section = (name: string, bar: number) => ({ id: `${name}-${bar}`, bar, name, tint: 0 });

/** Three songs at 120 in 4/4, 24 bars each: a bar is 2 s. Sections at bars 0, 8 and 16. */
export function nightShow(set: object = {}): Show {
  const plain = testShow();
  const song = plain.songs[0]!;
  const songs = ['one', 'two', 'three'].map((name) =>
    Song.parse({
      ...song,
      id: name,
      title: name,
      duration: 48,
      sections: [section('Verse', 0), section('Chorus', 8), section('Outro', 16)],
    }),
  );
  const banks = [Bank.parse({ id: 'bar', name: 'Bar', pads: ['red', 'half-blue', 'kept'].map((look) => ({ look })) })];
  const sets = [
    SetList.parse({
      id: 'friday',
      name: 'Friday',
      entries: songs.map(({ id: name }) => ({ kind: 'song', id: `e-${name}`, song: name })),
      ...set,
    }),
  ];
  const read = readShow({ ...plain, songs, banks, sets }, 'test');
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  return read.value;
}

/** A stage whose clock is moved by hand. */
export function night(of: Show) {
  let live: LiveState = AT_REST;
  let now = 100;
  const moment = (): Moment => ({ show: of, live, now: seconds(now) });
  const act = (actions: readonly Action[]) => {
    for (const action of actions) {
      expect(unfit(of, live, action, seconds(now))).toBeUndefined();
      live = reduced(live, { seq: live.seq + 1, at: seconds(now), who: 'foot', action: Action.parse(action) });
    }
  };
  const press = (one: object, down = true) => act(actionsOf(moment(), Act.parse(one), down));
  return {
    moment,
    press,
    act,
    next: () => press({ act: 'stop', way: 'next' }),
    back: () => press({ act: 'stop', way: 'previous' }),
    wait: (length: number) => void (now += length),
    live: () => live,
    at: () => placeAt(moment()).stops[placeAt(moment()).at]?.id,
    time: () => (live.song ? songTimeAt(live.song, seconds(now)) : undefined),
    plays: () => (live.song?.playing ? live.song.id : undefined),
    on: () => live.standing.filter((one) => one.on).map(({ look }) => look as string),
    will: (one: object) => wordsNow(moment(), Act.parse(one)),
  };
}
export const NEXT = { act: 'stop', way: 'next' };
export const BACK = { act: 'stop', way: 'previous' };
