import { createStore } from 'zustand/vanilla';
import type { Source } from '@hovlix/core/gig';
import { AT_REST, type FromScreen } from '@hovlix/core/live';
import type { GearWord, LinkState } from '../conduct/conduct';
import { controls } from './controls';
import type { Playing } from './act';

/** A screen whose conductor only listens. */
function screen() {
  const said: FromScreen[] = [];
  let hear: (word: GearWord) => void = () => undefined;
  const store = createStore<Pick<LinkState, 'conductor' | 'live'>>(() => ({ conductor: 'server', live: AT_REST }));
  const conducting = {
    store,
    say: (message: FromScreen) => void said.push(message),
    onGear: (take: (word: GearWord) => void) => void (hear = take),
  };
  const made = controls({ conducting } as unknown as Playing, () => 0);
  const line = (conductor: LinkState['conductor']) => store.setState({ conductor });
  return { made, said, line, hear: (word: GearWord) => hear(word) };
}

const PEDAL: Source = { by: 'note', device: 'Board', channel: 1, number: 60 };

test('a control that learns goes on when the line was lost, until something was pressed', () => {
  const { made, said, line, hear } = screen();
  const learned: Source[] = [];
  made.learn((source) => void learned.push(source));
  line('lost');
  expect(said).toEqual([{ type: 'learn', on: true }]);
  line('server');
  expect(said).toEqual([
    { type: 'learn', on: true },
    { type: 'learn', on: true },
  ]);
  hear({ type: 'learned', source: PEDAL });
  expect(learned).toEqual([PEDAL]);
  expect(said.at(-1)).toEqual({ type: 'learn', on: false });
  line('lost');
  line('server');
  expect(said).toHaveLength(3);
});

test('a second word about what was learned goes to whoever learned it, closed or not, until something else learns', () => {
  const { made, said, hear } = screen();
  const board = { by: 'control', device: 'Board', channel: 1, number: 64 } as const;
  const [first, second] = (['absolute', 'toggle'] as const).map((sends): Source => ({ ...board, sends }));
  const learned: Source[] = [];
  const begin = () => made.learn((source) => void learned.push(source));
  const tell = (source: Source) => hear({ type: 'learned', source });
  begin();
  tell(first!);
  tell(second!);
  expect(learned).toEqual([first, second]);
  begin();
  tell(second!);
  expect(learned).toHaveLength(2);
  tell(first!);
  made.learn(null);
  tell(second!);
  expect(learned).toEqual([first, second, first, second]);
  expect(said.map((message) => message.type === 'learn' && message.on)).toEqual([true, false, true, false]);
});

test('what is held at the computer counts as let go when the line is lost; what is held here is still held', () => {
  const { made, line, hear } = screen();
  const felt = (control: string, held: boolean): GearWord => ({
    type: 'felt',
    control,
    down: held,
    held,
    gestures: [],
  });
  const told: [string, boolean][] = [];
  made.onFelt(({ control, held }) => void told.push([control, held]));
  hear(felt('left', true));
  hear(felt('right', true));
  hear(felt('right', false));
  expect(made.store.getState().down).toEqual(['left']);
  made.store.setState(({ down }) => ({ down: [...down, 'here'] }));
  line('lost');
  expect(made.store.getState().down).toEqual(['here']);
  expect(told.at(-1)).toEqual(['left', false]);
  line('server');
  hear(felt('left', true));
  expect(made.store.getState().down).toEqual(['here', 'left']);
});
