// What would go wrong tonight is found before the audience finds it.

import { Control } from '../gig';
import { testShow } from '../testing/show';
import { preflight, readShow, type Facts, type Show } from '.';

const READY: Facts = {
  music: new Set(['a'.repeat(64)]),
  devices: ['Floor board'],
  osc: true,
  timetable: true,
  outputs: { on: 1, troubles: [] },
  sending: true,
  blackout: false,
  awake: true,
  battery: null,
};
const foot = (source: object | null, does: object = { press: [{ act: 'tap' }] }, id = 'f') =>
  Control.parse({ kind: 'switch', id, name: 'Foot', source, does });
const note = { by: 'note', device: 'Floor board', channel: 1, number: 36 };

const TAP = [{ act: 'tap' }];
const doors = (does: object) => ({ id: 'd', name: 'Doors', day: '2026-12-04', time: '18:00:00', ...does });

function show(change: object = {}): Show {
  const plain = testShow();
  const [song] = plain.songs;
  const lanes = [{ ...song!.lanes[0]!, clips: [] }];
  const music = { hash: 'a'.repeat(64), name: 'song.wav', type: 'wav', bytes: 1 };
  const read = readShow(
    { ...plain, songs: [{ ...song!, lanes, music }], safety: { on: true, most: 3 }, ...change },
    'test',
  );
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  return read.value;
}
const said = (of: Show, facts: Partial<Facts> = {}) =>
  preflight(of, { ...READY, ...facts }).map(({ weight, text }) => `${weight}: ${text}`);

test('where all is well nothing is said', () => {
  expect(said(show())).toEqual([]);
});

test('where nobody could follow a timetable nothing is said of that', () => {
  expect(said(show({ events: [doors({ begins: TAP })] }), { timetable: null })).toEqual([]);
});

test.each<[string, object, Partial<Facts>]>([
  ['stops: “song.wav” of “Song” is not on this device: its light plays without sound.', {}, { music: new Set() }],
  ['stops: No output is on.', {}, { outputs: { on: 0, troubles: [] } }],
  ['stops: The cable was pulled out.', {}, { outputs: { on: 1, troubles: ['The cable was pulled out.'] } }],
  ['stops: No DMX leaves: this page is not served by Hovlix on a computer.', {}, { outputs: null }],
  ['stops: Master output is off: nothing is sent.', {}, { sending: false }],
  ['look: Blackout is on.', {}, { blackout: true }],
  ['look: The battery is at 20 % and not charging.', {}, { battery: 0.2 }],
  ['stops: Not learned yet, so that nothing presses it: “Foot”.', { controls: [foot(null)] }, {}],
  ['look: Does nothing yet: “Foot”.', { controls: [foot({ by: 'key', code: 'F7' }, {})] }, {}],
  ['stops: MIDI is off on this screen, and controls are bound to it.', { controls: [foot(note)] }, { devices: null }],
  ['stops: No MIDI device is plugged in.', { controls: [foot(note)] }, { devices: [] }],
  [
    'stops: OSC is not listened to, and controls are bound to it.',
    { controls: [foot({ by: 'osc', address: '/tablet/1' })] },
    { osc: false },
  ],
  ['stops: “Floor board”, which has “Foot”, is not plugged in.', { controls: [foot(note)] }, { devices: ['Keys'] }],
  [
    'look: “Foot” and “Foot” both hear key F7.',
    { controls: [foot({ by: 'key', code: 'F7' }), foot({ by: 'key', code: 'F7' }, undefined, 'g')] },
    {},
  ],
  ['look: Does nothing by the clock yet: “Doors”.', { events: [doors({})] }, { timetable: false }],
  ['look: This computer does not follow the timetable.', { events: [doors({ ends: TAP })] }, { timetable: false }],
  ['look: Flash safety is off: strobes and hits are not limited.', { safety: { on: false, most: 3 } }, {}],
  ['look: Bank “Empty” has no pads.', { banks: [{ id: 'b', name: 'Empty', pads: [] }] }, {}],
  ['stops: The set “Friday” is empty.', { sets: [{ id: 's', name: 'Friday', entries: [] }] }, {}],
  [
    'look: The pedal is to stop at the sections of “Song”, and it has none.',
    { sets: [{ id: 's', name: 'Friday', entries: [{ kind: 'song', id: 'e', song: 'song', stops: 'sections' }] }] },
    {},
  ],
])('%s', (text, change, facts) => {
  expect(said(show(change), facts)).toEqual([text]);
});

test('a role nobody plays here, lamps that share channels, a rig without lamps', () => {
  const plain = testShow();
  const [room, hall] = plain.rigs;
  const clash = { ...room!, fixtures: room!.fixtures.map((one) => (one.id === 'b' ? { ...one, address: 3 } : one)) };
  expect(said(show({ rigs: [clash, hall] }))).toEqual(['stops: A and B share DMX channels.']);
  expect(said(show({ rig: 'hall' }))).toEqual([
    'look: No lamp of “Hall” plays Movers.',
    'look: No lamp of “Hall” plays Bars.',
  ]);
  expect(said(show({ rigs: [{ ...hall!, id: 'room', fixtures: [], casting: [] }] }))[0]).toBe(
    'stops: There are no lamps in “Hall”.',
  );
});
