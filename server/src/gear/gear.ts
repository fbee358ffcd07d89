// Pedals and MIDI gear plugged into this computer: they work with no page open, and with the lid closed.

import { randomUUID } from 'node:crypto';
import type { Session } from '@hovlix/core/conduct';
import { NO_MIDI, type MidiReport } from '@hovlix/core/connect';
import {
  actionsSince,
  controlSurface,
  inTurn,
  lightPads,
  midiHearer,
  strikes,
  timersOf,
  type GearHost,
} from '@hovlix/core/gear';
import type { Act } from '@hovlix/core/gig';
import { BY_THE_CLOCK, GEAR, OVER_OSC, type Moment } from '@hovlix/core/live';
import { followMachines, type MachinesState } from '@hovlix/core/machines';
import { lookOfNow } from '@hovlix/core/stored';
import { answerOsc, oscHearer, type OscHearer, type OscListeners } from '@hovlix/core/osc';
import { id } from '@hovlix/core/units';
import { now } from '../clock';
import type { ConnectionsStore } from '../connect/store';
import type { Hub } from '../ws/hub';
import { openPorts, type MidiPorts, type StandInPort } from './ports';

export type Gear = {
  /** What is plugged in; null while it is not listened to. */
  readonly report: () => MidiReport | null;
  /** The next thing that is touched is told to this screen alone. */
  readonly learn: (screen: string | null) => void;
  /** OSC that came in over the network, and what is told to those who sent it. */
  readonly osc: OscHearer & { readonly answer: (to: OscListeners) => () => void };
  /** For what is done by the clock. */
  readonly byTheClock: GearHost;
  readonly close: () => void;
};

type Start = {
  readonly connections: Pick<ConnectionsStore, 'connections' | 'onChange'>;
  readonly session: Pick<Session, 'shown' | 'conductor'>;
  readonly hub: Pick<Hub, 'act' | 'edit' | 'tell'>;
  /** Is told in words what is wrong, and null when it is over. */
  readonly say: (why: string | null) => void;
  readonly standIns?: readonly StandInPort[];
};

const timers = timersOf<NodeJS.Timeout>(globalThis);

const DEAF: MidiPorts = {
  inputs: () => [],
  outputs: () => [],
  deaf: () => null,
  sendTo: () => undefined,
  close: () => undefined,
};

export function followGear({ connections, session, hub, say, standIns = [] }: Start): Gear {
  const wanted = () => connections.connections().midi ?? NO_MIDI;
  let ports = DEAF;
  let last: MidiReport['last'] = null;
  let machines: MachinesState = { clock: null, timecode: null };

  const moment = (): Moment | undefined => {
    const show = session.shown();
    return show && { show, live: session.conductor.state(), now: now() };
  };
  const doAct = (who: string, act: Act, down: boolean, pressed: number): void => {
    const at = moment();
    if (!at) return;
    if (act.act === 'store') {
      const look = down ? lookOfNow(at, id<'Look'>(randomUUID())) : undefined;
      if (look) hub.edit({ id: randomUUID(), command: { type: 'store-look', look } });
    } else for (const action of actionsSince(at, act, down, now() - pressed)) hub.act(who, action);
  };
  /** @param who what it does goes into the log under this name. */
  const hostOf = (who: string): GearHost => {
    const host: GearHost = {
      moment,
      press: moment,
      now,
      act: (action) => hub.act(who, action),
      doActs: (acts, down, pressed) => inTurn(host, acts, (act) => doAct(who, act, down, pressed)),
      time: timers,
    };
    return host;
  };
  const host = hostOf(GEAR);

  const held = new Set<string>();
  const surface = controlSurface({
    host,
    clock: now,
    onFelt({ at: _, ...felt }) {
      // Not each bounce, or a thousand messages a second would go out to every screen.
      if (held.has(felt.control) === felt.held && felt.gestures.length === 0) return;
      if (felt.held) held.add(felt.control);
      else held.delete(felt.control);
      hub.tell({ type: 'felt', ...felt, gestures: [...felt.gestures] });
    },
    onHappened: ({ at: _, ...happened }) => hub.tell({ type: 'happened', ...happened }),
  });
  const hearer = midiHearer({ host, takes: surface.message, strike: strikes(host) });
  const hearMachines = followMachines({
    host,
    ports: { sendTo: (device, bytes, inSeconds) => ports.sendTo(device, bytes, inSeconds) },
    wishes: {
      follows: () => (wanted().on ? wanted().follows : 'nothing'),
      sendsClock: () => wanted().on && wanted().sendsClock,
      say: (text, bad) => say(bad ? text : null),
    },
    tell: (state) => void (machines = { ...machines, ...state }),
  });
  lightPads(host, { outputs: () => ports.outputs(), sendTo: (...all) => ports.sendTo(...all) }, () => wanted().on);

  const attend = () => {
    const { on } = wanted();
    if (on === (ports !== DEAF)) return;
    for (const device of ports.inputs()) hearer.pulled(device);
    ports.close();
    ports = DEAF;
    [last, machines] = [null, { clock: null, timecode: null }];
    say(null);
    if (!on) return;
    ports = openPorts(
      (device, data, at) => {
        hearMachines(device, data, at);
        const heard = hearer.hear(device, data, at);
        if (heard?.by === 'note' && heard.down) last = { channel: heard.channel, note: heard.number };
      },
      hearer.pulled,
      standIns,
    );
  };
  connections.onChange(attend);
  attend();

  return {
    report: () =>
      ports === DEAF
        ? null
        : { inputs: [...ports.inputs()], outputs: [...ports.outputs()], deaf: ports.deaf(), last, ...machines },
    learn: (screen) =>
      surface.learn(screen === null ? null : (source) => hub.tell({ type: 'learned', source }, screen)),
    osc: { ...oscHearer({ host: hostOf(OVER_OSC), surface }), answer: (to) => answerOsc(host, to) },
    byTheClock: hostOf(BY_THE_CLOCK),
    close: () => ports.close(),
  };
}
