// The night: Tin Lantern's three songs, the break, and the DJ hour; one foot switch leads through it.

export const FRIDAY = {
  id: 'friday',
  name: 'Friday',
  after: 'ready',
  entries: [
    {
      kind: 'song',
      id: 'friday-1',
      song: 'paper-lighthouse',
      start: { with: 'look', look: 'harbour-blue' },
      notes: 'Drums count in.',
    },
    {
      kind: 'song',
      id: 'friday-2',
      song: 'salt-and-signal',
      start: { with: 'look', look: 'singer-alone' },
      key: 'G',
    },
    { kind: 'song', id: 'friday-3', song: 'low-tide-engine', stops: 'sections', notes: 'No click. Live ending.' },
    { kind: 'pause', id: 'friday-4', minutes: 20, notes: 'House lights are by the door.' },
    { kind: 'song', id: 'friday-5', song: 'night-ferry', start: { with: 'dark' }, encore: true },
  ],
};

/** Page turners for sheet music send Page Down and Page Up. */
export const PEDAL = { id: 'floor', name: 'Floor switch' };

export const SWITCHES = [
  {
    kind: 'switch',
    id: 'floor-1',
    name: 'Foot',
    pedal: 'floor',
    source: { by: 'key', code: 'PageDown' },
    does: {
      press: [{ act: 'stop', way: 'next' }],
      double: [{ act: 'stop', way: 'previous' }],
      hold: [{ act: 'blackout', to: 'toggle' }],
    },
  },
];
