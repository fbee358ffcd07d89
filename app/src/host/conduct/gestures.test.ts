import type { Action } from '@hovlix/core/live';
import { tapTempo } from './gestures';
import type { Stage } from './moment';

test('a tap counts when it was made, also while no show is open; one of long ago is none', () => {
  const acted: Action[] = [];
  const stage = { conducting: { act: (action: Action) => acted.push(action) } } as unknown as Pick<Stage, 'conducting'>;
  jest.spyOn(performance, 'now').mockReturnValue(5000);
  tapTempo(stage, { timeStamp: 4800 });
  tapTempo(stage, { timeStamp: 3800 });
  expect(acted).toEqual([{ type: 'tap', late: expect.closeTo(0.2, 6) }]);
});
