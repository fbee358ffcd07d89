// MIDI ports of this computer. What is plugged in or pulled out is noticed without a touch.

import { existsSync } from 'node:fs';
import type * as Midi from '@julusian/midi';
import type { Ports } from '@hovlix/core/gear';
import type { Seconds } from '@hovlix/core/units';
import { now } from '../clock';

/** So often it is looked what is plugged in. */
const LOOK_MS = 1000;
/** On Linux all programs reach MIDI through this. */
const SEQUENCER = '/dev/snd/seq';
/** What this process offers itself has this in its name, and is not listened to. */
const OWN = 'RtMidi';

type Heard = (device: string, data: ArrayLike<number>, at: Seconds) => void;

export type MidiPorts = Ports & {
  readonly inputs: () => readonly string[];
  /** Why nothing can be heard, in words. */
  readonly deaf: () => string | null;
  readonly close: () => void;
};

/** A port of a stand-in, beside what is plugged in. */
export type StandInPort = {
  readonly name: string;
  readonly hear: (take: (bytes: readonly number[]) => void) => void;
  readonly send: (bytes: readonly number[]) => void;
};

/**
 * The name of a port as a browser calls it, so that what was learned there is known here.
 * On Linux ports are called “Client:Port 20:0”, on Windows “Name 1”.
 */
export function plainPortName(name: string, system: NodeJS.Platform = process.platform): string {
  if (system === 'win32') return name.replace(/ \d+$/, '');
  if (system !== 'linux') return name;
  const [, client, port] = /^(.*?):(.*?)(?: \d+:\d+)?$/.exec(name) ?? [];
  if (client === undefined || port === undefined) return name;
  return port.startsWith(client) ? port : `${client} ${port}`;
}

/** @param pulled is told the name of an input that is gone. */
export function openPorts(
  heard: Heard,
  pulled: (device: string) => void,
  standIns: readonly StandInPort[] = [],
): MidiPorts {
  const inputs = new Map<string, Midi.Input>();
  const outputs = new Map<string, Midi.Output>();
  let names: readonly string[] = standIns.map(({ name }) => name);
  let closed = false;
  let deaf: string | null = null;
  let looking: ReturnType<typeof setInterval> | undefined;
  for (const { name, hear } of standIns) hear((bytes) => !closed && heard(name, bytes, now()));

  const start = async () => {
    if (process.platform === 'linux' && !existsSync(SEQUENCER))
      return void (deaf = `This computer has no MIDI: ${SEQUENCER} is missing.`);
    try {
      const midi = await import('@julusian/midi');
      if (closed) return;
      look(midi);
      looking = setInterval(() => look(midi), LOOK_MS);
    } catch (error) {
      deaf = `MIDI of this computer cannot be opened: ${error instanceof Error ? error.message : String(error)}.`;
    }
  };
  const look = (midi: typeof Midi) => {
    const told = [
      failureOf(() =>
        follow(
          inputs,
          midi.Input.getPortNames(),
          () => new midi.Input(),
          (name, input) => {
            // System exclusive tells timecode where to stand; timing is a clock. That somebody is there we see by the port.
            input.ignoreTypes(false, false, true);
            input.on('message', (_since, bytes) => heard(plainPortName(name), bytes, now()));
          },
          (name) => pulled(plainPortName(name)),
        ),
      ),
      failureOf(() =>
        follow(
          outputs,
          midi.Output.getPortNames(),
          () => new midi.Output(),
          () => undefined,
          () => undefined,
        ),
      ),
    ];
    deaf = told.find((why) => why !== null) ?? null;
    const found = [...[...outputs.keys()].map((name) => plainPortName(name)), ...standIns.map(({ name }) => name)];
    if (found.join('\n') !== names.join('\n')) names = found;
  };
  void start();

  return {
    inputs: () => [...[...inputs.keys()].map((name) => plainPortName(name)), ...standIns.map(({ name }) => name)],
    outputs: () => names,
    deaf: () => deaf,
    sendTo(device, bytes, inSeconds = 0) {
      const send = () => {
        for (const [name, output] of outputs)
          if (device === null || plainPortName(name) === device) output.sendMessage([...bytes]);
        for (const one of standIns) if (device === null || one.name === device) one.send(bytes);
      };
      if (inSeconds > 0) setTimeout(() => !closed && send(), inSeconds * 1000);
      else send();
    },
    close() {
      closed = true;
      clearInterval(looking);
      for (const port of [...inputs.values(), ...outputs.values()]) port.destroy();
    },
  };
}

function failureOf(work: () => void): string | null {
  try {
    work();
    return null;
  } catch (error) {
    return `A MIDI port cannot be opened: ${error instanceof Error ? error.message : String(error)}.`;
  }
}

/** Opens what is new among the ports of a kind, and lets go of what was pulled out. */
function follow<Port extends Midi.Input | Midi.Output>(
  open: Map<string, Port>,
  names: readonly string[],
  make: () => Port,
  begin: (name: string, port: Port) => void,
  gone: (name: string) => void,
): void {
  for (const [name, port] of open)
    if (!names.includes(name)) {
      port.destroy();
      open.delete(name);
      gone(name);
    }
  // One that another program holds keeps no other from being opened; it is tried again with the next look.
  let failed: unknown;
  for (const name of names) {
    if (open.has(name) || name.includes(OWN)) continue;
    const port = make();
    try {
      port.openPortByName(name);
      begin(name, port);
      open.set(name, port);
    } catch (error) {
      port.destroy();
      failed ??= error;
    }
  }
  if (failed !== undefined) throw failed;
}
