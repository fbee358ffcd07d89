// Everything that is bound is in one list, once, and what is bound twice says so.

import { bindingsOf } from '../../bindings';
import { Control, Pedal } from '../../gig';
import { Bank } from '../../light';
import { testShow } from '../../testing/show';

const key = (code: string) => ({ by: 'key', code });
const note = (device: string | null) => ({ by: 'note', device, channel: null, number: 36 });
const red = { act: 'look', look: 'red' };

const show = {
  ...testShow(),
  pedals: [Pedal.parse({ id: 'floor', name: 'Floor' })],
  banks: [
    Bank.parse({ id: 'bar', name: 'Bar', pads: [{ look: 'red' }, { look: 'kept', press: 'flash' }, { look: 'red' }] }),
  ],
  controls: [
    {
      kind: 'switch',
      id: 'l',
      name: 'Left',
      pedal: 'floor',
      source: key('F7'),
      does: { press: [red], hold: [{ act: 'tap' }, red] },
      banks: [{ bank: 'bar', does: { press: [{ act: 'tap' }] } }],
    },
    { kind: 'switch', id: 'r', name: 'Right', source: note(null), does: {} },
    { kind: 'switch', id: 's', name: 'Snare', source: note('Keys'), does: { press: [red] } },
    { kind: 'switch', id: 't', name: 'Two', source: key('Digit2'), does: { press: [red] } },
    { kind: 'fader', id: 'k', name: 'Knob', source: null, turns: { turn: 'master', role: 'wash' } },
  ].map((one) => Control.parse(one)),
};
const pads = [1, 2].map((n) => ({ code: `Digit${n}`, key: `${n}`, does: '' }));
const own = [
  { code: 'KeyT', key: 'T', does: 'Tap the tempo' },
  { code: 'F7', key: 'F7', does: 'Something of ours' },
];

test('each gesture, bank, pad, knob and key is a line, with what it does', () => {
  const lines = bindingsOf(show, pads, own).map(({ trigger, how, does, where }) =>
    [trigger, how, does, where].join(' | '),
  );
  expect(lines).toEqual([
    'key F7 | press | Red on or off | Floor: Left',
    'key F7 | hold | Tap the tempo + Red on or off | Floor: Left',
    'key F7 | press | Tap the tempo | Floor: Left, in bank Bar',
    'note 36 (C2), any channel |  | does nothing yet | Right',
    'note 36 (C2), any channel, Keys | press | Red on or off | Snare',
    'key 2 | press | Red on or off | Two',
    'not learned yet | turn | Master of Wash | Knob',
    'pad 1, key 1 |  | Red on or off | Bank Bar',
    'pad 2, key 2 |  | Kept while held | Bank Bar',
    'pad 3 |  | Red on or off | Bank Bar',
    'key T |  | Tap the tempo | The app',
    'key F7 |  | Something of ours | The app',
  ]);
  expect(new Set(bindingsOf(show, pads, own).map(({ id }) => id)).size).toBe(lines.length);
});

test('two controls on one thing are both done; a key of the app or of a pad gives way', () => {
  const clashes = bindingsOf(show, pads, own)
    .filter(({ clash }) => clash !== '')
    .map(({ trigger, clash }) => `${trigger}: ${clash}`);
  expect(clashes).toEqual([
    'note 36 (C2), any channel: “Snare” too: one press does both',
    'note 36 (C2), any channel, Keys: “Right” too: one press does both',
    'pad 2, key 2: taken by “Two”',
    'key F7: taken by “Left”',
  ]);
});

test('a key is called by what is printed on it, and takes what the app does with that', () => {
  // The first key of letters on a French keyboard: A, where others have Q.
  const french = Control.parse({
    kind: 'switch',
    id: 'a',
    name: 'First',
    source: { by: 'key', code: 'KeyQ', sign: 'A' },
    does: { press: [red] },
  });
  const letters = ['A', 'Q'].map((letter) => ({ code: `Key${letter}`, key: letter, does: 'Something' }));
  const lines = bindingsOf({ ...show, controls: [french] }, pads, letters);
  expect(lines.filter(({ where }) => where !== 'Bank Bar').map(({ trigger, clash }) => [trigger, clash])).toEqual([
    ['key A', ''],
    ['key A', 'taken by “First”'],
    ['key Q', ''],
  ]);
});
