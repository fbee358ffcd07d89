// The stand-ins as a process of their own: `hovlix serve --demo` starts it and is told twice a second what arrives.

import { join } from 'node:path';
import type { NodeReport, SerialPlace } from '@hovlix/core/connect';
import { now } from '../clock';
import type { Deck, DeckCommand } from '@hovlix/core/player';
import { startDecks } from './decks';
import { startNode } from './node';
import { startSerial, type SerialStandIn } from './serial';

export type FromStandIns =
  | { readonly type: 'report'; readonly report: NodeReport }
  | { readonly type: 'cables'; readonly places: readonly SerialPlace[] }
  | { readonly type: 'frames'; readonly id: number; readonly frames: readonly PastFrame[] }
  | { readonly type: 'decks'; readonly id: number; readonly decks: readonly Deck[] }
  /** The foot controller was stepped on: one MIDI message. */
  | { readonly type: 'midi'; readonly bytes: readonly number[] }
  | { readonly type: 'midi-got'; readonly id: number; readonly got: readonly (readonly number[])[] }
  | { readonly type: 'failed'; readonly why: string };

export type ToStandIns =
  /** Asks for the latest frames of a universe on the network. */
  | {
      readonly type: 'frames';
      readonly id: number;
      readonly universe: number;
      readonly protocol: 'sacn' | 'artnet';
      /** Only those since then, in seconds of the computer's steady clock. */
      readonly since: number;
    }
  /** Does something on a deck of the DJ player, if anything, and asks how they stand. */
  | { readonly type: 'decks'; readonly id: number; readonly deck?: number; readonly command?: DeckCommand }
  /** Does something on the foot controller, if anything, and asks what it was sent last. */
  | { readonly type: 'midi-does'; readonly id: number; readonly bytes?: readonly number[] }
  /** MIDI for the foot controller. */
  | { readonly type: 'midi'; readonly bytes: readonly number[] }
  /** Where the DJ player is listened to. */
  | { readonly type: 'player-port'; readonly port: number };

/** A frame the node heard: when by the computer's steady clock, how many seconds ago, and its levels as they came. */
export type PastFrame = { readonly at: number; readonly secondsAgo: number; readonly levels: readonly number[] };

const [home = '.', sacn, artnet, player] = process.argv.slice(2);
const say = (message: FromStandIns) => process.send?.(message);
const cables: SerialStandIn[] = [];
/** What the foot controller was sent last, but for clock ticks. */
const got: (readonly number[])[] = [];
const MOST_GOT = 64;

async function start(): Promise<void> {
  const node = await startNode({ ports: { sacn: Number(sacn) || 5568, artnet: Number(artnet) || 6454 } }).catch(
    (error: Error) => {
      say({ type: 'failed', why: `The DMX node stand-in cannot listen: ${error.message}.` });
      return undefined;
    },
  );
  const places: SerialPlace[] = [];
  for (const kind of ['framed', 'plain'] as const)
    try {
      const cable = await startSerial(kind, join(home, `stand-in-${kind}-cable`));
      cables.push(cable);
      places.push({
        path: cable.path,
        name: `${kind === 'framed' ? 'Framed' : 'Plain'} cable stand-in`,
        standIn: true,
      });
    } catch {
      // No pseudo-terminals on this system: the other stand-ins do without.
    }
  say({ type: 'cables', places });
  const decks = startDecks(Number(player));
  process.on('message', (message: ToStandIns) => {
    if (message.type === 'player-port') return decks.sendTo(message.port);
    if (message.type === 'midi') {
      got.push(message.bytes);
      if (got.length > MOST_GOT) got.shift();
      return;
    }
    const { id } = message;
    if (message.type === 'decks') {
      if (message.deck !== undefined && message.command) decks.take(message.deck, message.command);
      return say({ type: 'decks', id, decks: decks.now() });
    }
    if (message.type === 'midi-does') {
      if (message.bytes) say({ type: 'midi', bytes: message.bytes });
      return say({ type: 'midi-got', id, got });
    }
    const { universe, protocol, since } = message;
    const asked = now();
    const frames = node?.frames(universe, protocol).filter(({ at }) => at >= since) ?? [];
    return say({
      type: 'frames',
      id,
      frames: frames.map(({ at, levels }) => ({ at, secondsAgo: asked - at, levels: Array.from(levels) })),
    });
  });
  setInterval(() => {
    const all = [...(node ? [node.report()] : []), ...cables.map((cable) => cable.report())];
    say({
      type: 'report',
      report: {
        universes: all.flatMap(({ universes }) => universes),
        bad: all.reduce((sum, { bad }) => sum + bad, 0),
        lastBad: all.map(({ lastBad }) => lastBad).find((one) => one !== null) ?? null,
      },
    });
    // Not in step with a test's flashing, which would then look as if it stood still.
  }, 430);
}

void start();
process.on('exit', () => cables.forEach((cable) => cable.close()));
process.on('disconnect', () => process.exit());
process.on('SIGTERM', () => process.exit());
// A Ctrl-C in the terminal reaches both processes; the server is the one that ends this one.
process.on('SIGINT', () => undefined);
