// Starts the stand-ins beside the server and keeps what they last said.

import { fork, type ChildProcess } from 'node:child_process';
import { NO_PLAYER, type Connections, type NodeReport, type SerialPlace } from '@hovlix/core/connect';
import type { Deck, DeckCommand } from '@hovlix/core/player';
import { ARTNET_PORT, SACN_PORT } from '@hovlix/core/wire';
import type { FromStandIns, PastFrame, ToStandIns } from './process';

export type StandIns = {
  readonly report: () => NodeReport | null;
  readonly cables: () => readonly SerialPlace[];
  /**
   * What the node heard of a universe in the last seconds, the oldest first; nothing where it does not answer.
   * @param since only what came since then, in seconds of the computer's steady clock.
   */
  readonly frames: (universe: number, protocol: 'sacn' | 'artnet', since: number) => Promise<readonly PastFrame[]>;
  /** Does something on a deck of the DJ player, if anything; how they stand, nothing where it does not answer. */
  readonly decks: (deck?: number, command?: DeckCommand) => Promise<readonly Deck[]>;
  readonly playerPort: (port: number) => void;
  /** Steps on the foot controller, if anything, with one MIDI message; what it was sent last. */
  readonly foot: (bytes?: readonly number[]) => Promise<readonly (readonly number[])[]>;
  readonly sendToFoot: (bytes: readonly number[]) => void;
  readonly stop: () => void;
};

/** @param program the built stand-ins. @param failed is told in words what does not work. @param stepped hears the foot controller. */
export function startStandIns(
  program: string,
  home: string,
  ports: StandInPorts,
  failed: (why: string) => void,
  stepped: (bytes: readonly number[]) => void,
): StandIns {
  const args = [home, ports.sacn, ports.artnet, ports.player].map(String);
  const child: ChildProcess = fork(program, args, { stdio: 'ignore' });
  let report: NodeReport | null = null;
  let cables: readonly SerialPlace[] = [];
  const frames = asking<readonly PastFrame[]>(child);
  const decks = asking<readonly Deck[]>(child);
  const feet = asking<readonly (readonly number[])[]>(child);
  child.on('message', (message: FromStandIns) => {
    if (message.type === 'frames') frames.answer(message.id, message.frames);
    else if (message.type === 'decks') decks.answer(message.id, message.decks);
    else if (message.type === 'midi-got') feet.answer(message.id, message.got);
    else if (message.type === 'midi') stepped(message.bytes);
    else if (message.type === 'report') report = message.report;
    else if (message.type === 'cables') cables = message.places;
    else failed(message.why);
  });
  child.on('error', (error) => failed(`The stand-ins did not start: ${error.message}.`));
  child.on('exit', () => {
    report = null;
    cables = [];
    frames.giveUp([]);
    decks.giveUp([]);
    feet.giveUp([]);
  });
  const tell = (message: ToStandIns) => void (child.connected && child.send(message));
  return {
    report: () => report,
    cables: () => cables,
    frames: (universe, protocol, since) => frames.ask((id) => ({ type: 'frames', id, universe, protocol, since }), []),
    decks: (deck, command) =>
      decks.ask((id) => ({ type: 'decks', id, ...(deck === undefined || !command ? {} : { deck, command }) }), []),
    playerPort: (port) => tell({ type: 'player-port', port }),
    foot: (bytes) => feet.ask((id) => ({ type: 'midi-does', id, ...(bytes ? { bytes } : {}) }), []),
    sendToFoot: (bytes) => tell({ type: 'midi', bytes }),
    stop: () => void child.kill(),
  };
}

/** Questions to the stand-ins, each answered under its number. */
function asking<Answer>(child: ChildProcess) {
  const waiting = new Map<number, (answer: Answer) => void>();
  let asked = 0;
  return {
    ask: (question: (id: number) => ToStandIns, none: Answer) =>
      new Promise<Answer>((resolve) => {
        if (!child.connected) return resolve(none);
        const id = ++asked;
        waiting.set(id, resolve);
        child.send(question(id));
      }),
    answer(id: number, answer: Answer) {
      waiting.get(id)?.(answer);
      waiting.delete(id);
    },
    giveUp(none: Answer) {
      for (const answer of waiting.values()) answer(none);
      waiting.clear();
    },
  };
}

export type StandInPorts = { readonly sacn: number; readonly artnet: number; readonly player: number };

/** The stand-in listens where the first output to this computer sends. */
export function standInPorts(connections: Connections): StandInPorts {
  const portOf = (protocol: 'sacn' | 'artnet', usual: number) =>
    connections.outputs.flatMap(({ way }) =>
      way.protocol === protocol && way.to === '127.0.0.1' && way.port !== undefined ? [way.port] : [],
    )[0] ?? usual;
  const { port: player } = connections.player ?? NO_PLAYER;
  return { sacn: portOf('sacn', SACN_PORT), artnet: portOf('artnet', ARTNET_PORT), player };
}
