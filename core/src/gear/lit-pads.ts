// Lit pads of MIDI gear: a pad whose look is on is lit, as the pads on the screen are.

import type { Source, SwitchControl } from '../gig';
import { banksAt, chosenNow, isFrozen, isOn, loopsNow, type Moment } from '../live';
import type { BareHost, Ports } from './host';

const NOTE_ON = 0x90;
const CONTROL = 0xb0;
const LIT = 127;
/** Looks that go out by themselves tell nobody: it is looked for them, often enough to seem at once. */
const LOOK_MS = 50;

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
    if (act.act === 'choose' && act.role !== null) return chosenNow(moment).includes(act.role);
    if (act.act === 'loop') return loopsNow(moment);
    if (act.act === 'play') return live.song?.id === act.song && live.song.playing;
  }
  return undefined;
}

/** What lights the pad or button that a source is, or puts it out: what it sends itself (MIDI 1.0, table 1). */
export function lightOf(source: Source, lit: boolean): readonly number[] | undefined {
  if (source.by !== 'note' && source.by !== 'control') return undefined;
  return [(source.by === 'note' ? NOTE_ON : CONTROL) | ((source.channel ?? 1) - 1), source.number, lit ? LIT : 0];
}

/**
 * Tells gear whether each of its pads and buttons is lit, when that changes, and all of it when it is plugged in.
 * @param wanted is asked each time: nothing is told while it says no.
 * @returns what ends it.
 */
export function lightPads(host: BareHost, ports: Ports, wanted: () => boolean): () => void {
  const told = new Map<string, boolean>();
  let outputs: readonly string[] = [];
  return host.time.every(LOOK_MS, () => {
    const moment = wanted() ? host.moment() : undefined;
    if (!moment) return void told.clear();
    if (outputs !== ports.outputs()) told.clear();
    outputs = ports.outputs();
    for (const control of moment.show.controls) {
      const { source } = control;
      if (control.kind !== 'switch' || !source) continue;
      const lit = isLit(moment, control);
      const bytes = lit === undefined ? undefined : lightOf(source, lit);
      if (!bytes || told.get(control.id) === lit || !('device' in source)) continue;
      told.set(control.id, lit!);
      ports.sendTo(source.device, bytes);
    }
  });
}
