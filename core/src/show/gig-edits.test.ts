// Sets, pedals and controls, and what they forget.

import fc from 'fast-check';
import { Act, allActs, conflictsOf, Control, doesIn, Pedal, SetList, type SwitchControl } from '../gig';
import { Bank, Kit } from '../light';
import { testShow } from '../testing/show';
import { person } from '../testing/person';
import { id } from '../units';
import { edit, legal, readShow, Show, type Command } from '.';

const acts = (...all: object[]) => all.map((one) => Act.parse(one));
const DOES = {
  press: acts({ act: 'look', look: 'red' }, { act: 'play', song: 'song' }, { act: 'tap' }),
  double: acts({ act: 'bank', bank: 'rock' }, { act: 'master', role: 'wash', level: 0.5 }),
  hold: acts({ act: 'hit', kit: 'drums', role: 'wash', note: 36 }),
  release: acts({
    act: 'hand',
    values: [
      { role: 'wash', level: { type: 'hold', value: 1 } },
      { role: 'movers', level: { type: 'hold', value: 1 } },
    ],
  }),
};

function full(): Show {
  const kit = Kit.parse({ id: 'drums', name: 'Drums', hits: [], channels: [] });
  const bank = Bank.parse({
    id: 'rock',
    name: 'Bar',
    pads: [
      {
        look: 'kept',
        also: [
          { act: 'look', look: 'red' },
          { act: 'tap' },
          ...DOES.release,
          { act: 'lamps', role: 'wash', does: 'reset' },
          { act: 'choose', role: 'wash', beside: true },
        ],
      },
    ],
  });
  return Show.parse({
    ...testShow(),
    kits: [kit],
    banks: [bank],
    sets: [
      {
        id: 'friday',
        name: 'Friday',
        entries: [
          { kind: 'song', id: 'a', song: 'song', bank: 'rock', start: { with: 'look', look: 'red' } },
          { kind: 'look', id: 'b', look: 'red' },
          { kind: 'pause', id: 'c', minutes: 20 },
        ],
      },
    ],
    set: 'friday',
    pedals: [{ id: 'floor', name: 'Floor' }],
    controls: [
      {
        kind: 'switch',
        id: 'left',
        name: 'Left',
        pedal: 'floor',
        source: { by: 'key', code: 'PageDown' },
        does: DOES,
        banks: [{ bank: 'rock', does: DOES }],
      },
      { kind: 'fader', id: 'fader', name: 'Wash', source: null, turns: { turn: 'master', role: 'wash' } },
      { kind: 'fader', id: 'zoom', name: 'Zoom', source: null, turns: { turn: 'hand', role: 'wash', what: 'zoom' } },
      { kind: 'fader', id: 'fast', name: 'Fast', source: null, turns: { turn: 'speed', look: 'red' } },
    ],
    events: [
      { id: 'doors', name: 'Doors', day: '2026-12-04', time: '18:00:00', begins: DOES.press, ends: DOES.double },
      { id: 'late', name: 'Late', day: '2026-12-04', time: '23:00:00', begins: [...DOES.hold, ...DOES.release] },
    ],
  });
}
const left = (show: Show) => show.controls[0] as SwitchControl;

test('events are stored, changed, taken out and brought back, and one with a day that is none is refused', () => {
  const me = person('me', full());
  const [doors] = full().events;
  me.make({ type: 'store-event', event: { ...doors!, name: 'Foyer' } });
  expect(me.show().events.map(({ name }) => name)).toEqual(['Foyer', 'Late']);
  me.make({ type: 'remove-event', event: doors!.id });
  expect(me.show().events).toHaveLength(1);
  me.undo();
  me.undo();
  expect(me.show()).toEqual(full());
  const wrong = edit(full(), { type: 'store-event', event: { ...doors!, day: '2026-02-30' } });
  expect(legal(wrong.show, new WeakSet())).toMatchObject({ ok: false, problem: { code: 'bad-value' } });
});

test.each([
  ['remove-look', { look: 'red' }],
  ['remove-song', { song: 'song' }],
  ['remove-bank', { bank: 'rock' }],
  ['remove-kit', { kit: 'drums' }],
  ['remove-role', { role: 'wash' }],
])(
  'after %s nothing of sets, pads, controls and events names it, all else stays, and undo brings it back',
  (type, named) => {
    const gone = Object.values(named)[0]!;
    const me = person('me', full());
    me.make({ type, ...named } as Command);
    const { sets, banks, controls, events } = me.show();
    expect(JSON.stringify([sets, banks, controls, events])).not.toContain(`"${gone}"`);
    expect(legal(me.show(), new WeakSet()).ok).toBe(true);
    expect(left(me.show()).does.press.some(({ act }) => act === 'tap')).toBe(true);
    expect(allActs(left(me.show())).length).toBeGreaterThan(4);
    me.undo();
    expect(me.show()).toEqual(full());
  },
);

test('a role that becomes part of another is that other one in every control', () => {
  const { show } = edit(full(), { type: 'merge-roles', role: id('wash'), into: id('movers') });
  expect(JSON.stringify(show.controls)).not.toContain('"wash",');
  expect(show.controls.slice(1, 3)).toMatchObject([{ turns: { role: 'movers' } }, { turns: { role: 'movers' } }]);
  expect(JSON.stringify(show.banks)).not.toContain('"wash"');
});

test('a pedal goes with its switches, a set with its being tonight’s', () => {
  const me = person('me', full());
  me.make({ type: 'remove-pedal', pedal: id('floor') });
  expect(me.show().controls.map(({ name }) => name)).toEqual(['Wash', 'Zoom', 'Fast']);
  me.make({ type: 'remove-set', set: id('friday') });
  expect(me.show().set).toBeUndefined();
  me.undo();
  me.undo();
  expect(me.show()).toEqual(full());
  me.make({ type: 'move-control', control: id('fader'), before: id('left') });
  expect(me.show().controls.map(({ name }) => name)).toEqual(['Wash', 'Left', 'Zoom', 'Fast']);
});

test('a switch does something else in certain banks', () => {
  const control = Control.parse({ ...left(full()), banks: [{ bank: 'rock', does: { press: [{ act: 'tap' }] } }] });
  expect(doesIn(control as SwitchControl, 'rock').press).toEqual([{ act: 'tap' }]);
  expect(doesIn(control as SwitchControl, 'other').press).toEqual(DOES.press);
});

test('what is bound in two places is told, whichever device or channel it may come from', () => {
  const device = fc.option(fc.constantFrom('Board', 'Keys'));
  const channel = fc.option(fc.constantFrom(1, 2));
  const note = fc.record({ by: fc.constant('note' as const), device, channel, number: fc.constantFrom(36, 37) });
  fc.assert(
    fc.property(note, note, (a, b) => {
      const both = [a, b].map((source, i) =>
        Control.parse({ kind: 'switch', id: `${i}`, name: 'x', source, does: {} }),
      );
      // There is a message that both would hear.
      const heard = ['Board', 'Keys'].some((from) =>
        [1, 2].some((on) =>
          [36, 37].some((key) =>
            [a, b].every((one) => (one.device ?? from) === from && (one.channel ?? on) === on && one.number === key),
          ),
        ),
      );
      expect(conflictsOf(both).length > 0).toBe(heard);
    }),
    { seed: 15, numRuns: 200 },
  );
  const program = (number: number, bank: number | null) =>
    Control.parse({
      kind: 'switch',
      id: `${number}${bank}`,
      name: 'x',
      source: { by: 'program', device: null, channel: null, number, bank },
      does: {},
    });
  expect(conflictsOf([program(3, 0), program(3, 1), program(4, 0)])).toEqual([]);
  expect(conflictsOf([program(3, 0), program(3, null)])).toHaveLength(1);
});

test('a show of version 7 opens: it had no sets and no pedals', () => {
  const { sets: _, pedals: __, controls: ___, ...rest } = testShow();
  const read = readShow({ ...rest, version: 7 }, 'old');
  expect(read.ok && read.value).toEqual(testShow());
  expect(SetList.parse({ id: 's', name: 'S', entries: [] })).toMatchObject({ after: 'ready', jumps: 'bar' });
  expect(Pedal.parse({ id: 'p', name: 'P' }).times.double).toBe(0.35);
});
