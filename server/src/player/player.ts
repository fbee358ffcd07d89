// Listens to a DJ player while that is wanted, and lets songs go by it.

import { randomUUID } from 'node:crypto';
import type { Session } from '@hovlix/core/conduct';
import { NO_PLAYER, type PlayerReport } from '@hovlix/core/connect';
import { PLAYER_SOUNDS } from '@hovlix/core/live';
import { playerFollower, readDeckWord, type PlayerFollower } from '@hovlix/core/player';
import type { OscMessage } from '@hovlix/core/wire';
import { id, type Seconds } from '@hovlix/core/units';
import { now } from '../clock';
import type { ConnectionsStore } from '../connect/store';
import { oscPort } from '../osc/port';
import type { Hub } from '../ws/hub';

/** So often it is looked where the decks are. */
const LOOK_MS = 20;

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
  let follower: PlayerFollower = playerFollower();

  const take = (message: OscMessage, from: string, at: Seconds) => {
    const word = readDeckWord(message);
    if (word && 'why' in word) port.refuse(word.why);
    else if (word) follower.take(word, at, from);
  };
  const port = oscPort(take, host);
  const attend = () => {
    const { on, port: at } = wanted();
    if (!port.listenAt(on ? at : undefined) || on) return;
    look(false);
    follower = playerFollower();
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
    if (port.listensAt() !== undefined) look(wanted().follows);
  }, LOOK_MS);

  return {
    report: () =>
      port.listensAt() === undefined
        ? null
        : { decks: [...follower.decks(now(), session.shown())], ...port.troubles() },
    close() {
      clearInterval(looking);
      port.close();
    },
  };
}
