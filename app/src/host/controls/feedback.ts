// Lit pads of MIDI gear: a pad whose look is on is lit, as the pads on the screen are.

import type { Control, SwitchControl } from '@hovlix/core/gig';
import { banksAt, isFrozen, isOn, type Moment } from '@hovlix/core/live';
import type { Stage } from '../conduct/gestures';
import { momentOf } from '../conduct/gestures';
import type { Midi } from '../midi/midi';

const NOTE_ON = 0x90;
const LIT = 127;
/** Looks that go out by themselves tell nobody: it is looked for them. */
const LOOK_MS = 200;

/** Whether a switch shows that what it does is on; undefined where it does nothing that could be. */
export function isLit(moment: Moment, control: SwitchControl): boolean | undefined {
  const { live, now } = moment;
  const look = (id: string) => live.standing.some((one) => one.look === id && isOn(one, now));
  for (const act of control.does.press) {
    if (act.act === 'look') return look(act.look);
    if (act.act === 'pad') {
      const pad = banksAt(moment).bank?.pads[act.place - 1];
      return pad ? look(pad.look) : false;
    }
    if (act.act === 'blackout') return live.blackout.on;
    if (act.act === 'freeze') return isFrozen(live);
    if (act.act === 'loop') return live.song?.loop !== undefined;
    if (act.act === 'play') return live.song?.id === act.song && live.song.playing;
  }
  return undefined;
}

type Noted = Extract<NonNullable<Control['source']>, { by: 'note' }>;

/** Tells gear that sends notes whether each of its pads is lit, when that changes, and all of it when it is plugged in. */
export function followLights(stage: Stage, midi: Pick<Midi, 'store' | 'sendTo'>): void {
  const told = new Map<string, boolean>();
  const look = () => {
    const moment = momentOf(stage);
    if (!moment || midi.store.getState().state !== 'on') return;
    for (const control of moment.show.controls) {
      const { source } = control;
      if (control.kind !== 'switch' || source?.by !== 'note') continue;
      const lit = isLit(moment, control);
      if (lit === undefined || told.get(control.id) === lit) continue;
      told.set(control.id, lit);
      send(source, lit);
    }
  };
  const send = ({ device, channel, number }: Noted, lit: boolean) =>
    midi.sendTo(device, [NOTE_ON | ((channel ?? 1) - 1), number, lit ? LIT : 0]);
  stage.conducting.store.subscribe(look);
  midi.store.subscribe((now, before) => {
    if (now.outputs !== before.outputs) told.clear();
    look();
  });
  setInterval(look, LOOK_MS);
}
