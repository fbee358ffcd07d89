// Pedals and controls as one begins with them: what most bands want of so many switches.

import { Control, Pedal, type FaderControl, type SwitchControl } from '@hovlix/core/gig';
import type { Show } from '@hovlix/core/show';
import { freshId } from '../../../host/fresh-id';

export const LAYOUTS = [1, 2, 3, 4, 5, 10] as const;

const ON = { act: 'stop', way: 'next' };
const BACK = { act: 'stop', way: 'previous' };
const DARK = { act: 'blackout', to: 'toggle' };
const pad = (place: number) => ({ act: 'pad', place });
const bank = (way: string) => ({ act: 'turn-bank', way });

type Begun = { readonly name: string; readonly press: object; readonly double?: object; readonly hold?: object };

/** What each switch does to begin with. With four and more they play the pads of the bank. */
function begun(count: number): readonly Begun[] {
  if (count === 1) return [{ name: 'Foot', press: ON, double: BACK, hold: DARK }];
  if (count === 2)
    return [
      { name: 'Left', press: BACK, hold: DARK },
      { name: 'Right', press: ON },
    ];
  if (count === 3)
    return [
      { name: 'Left', press: BACK },
      { name: 'Middle', press: DARK },
      { name: 'Right', press: ON },
    ];
  if (count === 4)
    return [
      { name: '1', press: ON, hold: BACK },
      ...[1, 2].map((place) => ({ name: String(place + 1), press: pad(place) })),
      { name: '4', press: DARK },
    ];
  const pads = count === 5 ? 3 : 6;
  const play = Array.from({ length: pads }, (_, i) => ({ name: String(i + 1), press: pad(i + 1) }));
  const go = [
    { name: String(pads + 1), press: ON, hold: BACK },
    { name: String(pads + 2), press: DARK, hold: bank('next') },
  ];
  const more = [
    { name: '9', press: bank('previous') },
    { name: '10', press: bank('next') },
  ];
  return count === 5 ? [...play, ...go] : [...play, ...go, ...more];
}

export function freshPedal({ pedals }: Show, count: number) {
  const pedal = Pedal.parse({ id: freshId(), name: pedals.length === 0 ? 'Pedal' : `Pedal ${pedals.length + 1}` });
  const controls = begun(count).map(({ name, press, double, hold }) =>
    Control.parse({
      kind: 'switch',
      id: freshId(),
      name,
      source: null,
      pedal: pedal.id,
      does: { press: [press], double: double ? [double] : [], hold: hold ? [hold] : [] },
    }),
  );
  return { pedal, controls };
}

export function freshSwitch({ controls }: Show, pedal?: Pedal['id']): SwitchControl {
  const name = `Switch ${controls.length + 1}`;
  return Control.parse({
    kind: 'switch',
    id: freshId(),
    name,
    source: null,
    ...(pedal ? { pedal } : {}),
    does: {},
  }) as SwitchControl;
}

export function freshFader({ controls }: Show): FaderControl {
  return Control.parse({
    kind: 'fader',
    id: freshId(),
    name: `Knob ${controls.length + 1}`,
    source: null,
    turns: { turn: 'master', role: null },
  }) as FaderControl;
}
