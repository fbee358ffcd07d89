// Listens to a DJ player while that is wanted, and lets songs go by it.

import { randomUUID } from 'node:crypto';
import { createSocket, type RemoteInfo, type Socket } from 'node:dgram';
import type { Session } from '@hovlix/core/conduct';
import { NO_PLAYER, type PlayerReport } from '@hovlix/core/connect';
import { PLAYER_SOUNDS } from '@hovlix/core/live';
import { playerFollower, readDeckWord, type PlayerFollower } from '@hovlix/core/player';
import { decodeOsc } from '@hovlix/core/wire';
import { id } from '@hovlix/core/units';
import { now } from '../clock';
import type { ConnectionsStore } from '../connect/store';
import type { Hub } from '../ws/hub';

/** So often it is looked where the decks are. */
const LOOK_MS = 20;
/** A port that another program holds is tried again so often. */
const AGAIN_MS = 3000;
/** No message that we understand is longer. */
const MOST_BYTES = 4096;

export type Player = {
  /** What is heard; null while nobody is listened to. */
  readonly report: () => PlayerReport | null;
  readonly close: () => void;
};

type Start = {
  readonly connections: Pick<ConnectionsStore, 'connections' | 'onChange'>;
  readonly session: Pick<Session, 'shown' | 'conductor'>;
  readonly hub: Pick<Hub, 'act' | 'edit'>;
  /** Is told in words what is wrong, and null when it is over. */
  readonly say: (why: string | null) => void;
  /** Another address than all of this computer's. */
  readonly host?: string;
};

export function followPlayer({ connections, session, hub, say, host }: Start): Player {
  const wanted = () => connections.connections().player ?? NO_PLAYER;
  let socket: Socket | undefined;
  let again: ReturnType<typeof setTimeout> | undefined;
  let listensAt: number | undefined;
  let follower: PlayerFollower = playerFollower();
  let bad = 0;
  let lastBad: string | null = null;
  let deaf: string | null = null;

  const refuse = (why: string) => {
    bad++;
    lastBad = why;
  };
  const take = (bytes: Uint8Array, { address }: RemoteInfo) => {
    const at = now();
    if (bytes.length > MOST_BYTES) return refuse(`a packet of ${bytes.length} bytes`);
    const packet = decodeOsc(bytes);
    if (packet.kind === 'bad') return refuse(packet.why);
    for (const message of packet.messages) {
      const word = readDeckWord(message);
      if (word && 'why' in word) refuse(word.why);
      else if (word) follower.take(word, at, address);
    }
  };
  const listen = (port: number) => {
    const fresh = createSocket({ type: 'udp4', reuseAddr: false });
    socket = fresh;
    fresh.on('message', take);
    fresh.on('error', (error: NodeJS.ErrnoException) => {
      const taken = error.code === 'EADDRINUSE';
      deaf = taken
        ? `Another program listens at port ${port}. End it, or choose another.`
        : `Nothing can be heard: ${error.message}`;
      fresh.close();
      if (socket !== fresh) return;
      socket = undefined;
      again = setTimeout(listen, AGAIN_MS, port);
    });
    fresh.bind(port, host, () => (deaf = null));
  };
  const attend = () => {
    const { on, port } = wanted();
    const at = on ? port : undefined;
    if (at === listensAt) return;
    listensAt = at;
    deaf = null;
    clearTimeout(again);
    socket?.close();
    socket = undefined;
    if (at !== undefined) return listen(at);
    look(false);
    follower = playerFollower();
    [bad, lastBad] = [0, null];
    say(null);
  };
  const look = (follows: boolean) => {
    const show = session.shown();
    if (!show) return;
    const moment = { show, live: session.conductor.state(), now: now() };
    const { actions, found } = follower.look(moment, follows);
    for (const action of actions) hub.act(PLAYER_SOUNDS, action);
    if (found)
      hub.edit({ id: randomUUID(), command: { type: 'know-track', known: { id: id(randomUUID()), ...found } } });
    const lost = follower.lost(moment.now);
    say(
      lost === undefined
        ? null
        : `Deck ${lost} of the DJ player stopped reporting. The song continues at its last speed.`,
    );
  };
  connections.onChange(attend);
  attend();
  const looking = setInterval(() => {
    if (listensAt !== undefined) look(wanted().follows);
  }, LOOK_MS);

  return {
    report: () =>
      listensAt === undefined ? null : { decks: [...follower.decks(now(), session.shown())], bad, lastBad, deaf },
    close() {
      clearInterval(looking);
      clearTimeout(again);
      socket?.close();
    },
  };
}
