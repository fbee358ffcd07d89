import { AT_REST, type Action, type LiveState } from '@hovlix/core/live';
import type { Song } from '@hovlix/core/song';
import type { Player } from '../sound/player';
import { lookAt, tapTempo } from './gestures';
import type { Stage } from './moment';

test('a tap counts when it was made, also while no show is open; one of long ago is none', () => {
  const acted: Action[] = [];
  const stage = { conducting: { act: (action: Action) => acted.push(action) } } as unknown as Pick<Stage, 'conducting'>;
  jest.spyOn(performance, 'now').mockReturnValue(5000);
  tapTempo(stage, { timeStamp: 4800 });
  tapTempo(stage, { timeStamp: 3800 });
  expect(acted).toEqual([{ type: 'tap', late: expect.closeTo(0.2, 6) }]);
});

test('a screen that was just made the one that programs shows what is looked at, before that is answered', () => {
  const sought: number[] = [];
  const stage = (foreseen: LiveState) =>
    ({
      conducting: { screen: 'me', foreseen: () => foreseen, store: { getState: () => ({ live: AT_REST }) } },
      player: { seek: (_: Song, to: number) => sought.push(to) } as unknown as Player,
    }) as unknown as Pick<Stage, 'conducting'> & { readonly player: Player };
  const song = {} as Song;
  lookAt(stage({ ...AT_REST, programs: 'me' }), song, 4);
  lookAt(stage({ ...AT_REST, programs: 'you' }), song, 5);
  expect(sought).toEqual([4]);
});
