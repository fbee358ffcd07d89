// A UDP port at which OSC is heard, while that is wanted.

import { createSocket, type RemoteInfo, type Socket } from 'node:dgram';
import { decodeOsc, type OscMessage } from '@hovlix/core/wire';
import type { Seconds } from '@hovlix/core/units';
import { now } from '../clock';

/** A port that another program holds is tried again so often. */
const AGAIN_MS = 3000;
/** No message that we understand is longer. */
const MOST_BYTES = 4096;
/** Four decks and ten fingers ask for less. */
const MOST_PER_SECOND = 2000;

export type OscPort = {
  /** Undefined listens nowhere. @returns whether that is another port than before. */
  readonly listenAt: (port: number | undefined) => boolean;
  readonly listensAt: () => number | undefined;
  /** Packets and messages that were no good since it listens here, and what was wrong with the last; why nothing is heard. */
  readonly troubles: () => { readonly bad: number; readonly lastBad: string | null; readonly deaf: string | null };
  readonly refuse: (why: string) => void;
  /** From the port it listens at. */
  readonly send: (bytes: Uint8Array, port: number, host: string) => void;
  readonly close: () => void;
};

/** @param host another address than all of this computer's. */
export function oscPort(take: (message: OscMessage, from: string, at: Seconds) => void, host?: string): OscPort {
  let socket: Socket | undefined;
  let again: ReturnType<typeof setTimeout> | undefined;
  let port: number | undefined;
  let [bad, lastBad, deaf]: [number, string | null, string | null] = [0, null, null];
  let [since, count] = [-Infinity, 0];

  const refuse = (why: string) => {
    bad++;
    lastBad = why;
  };
  const hear = (bytes: Uint8Array, { address }: RemoteInfo) => {
    const at = now();
    if (at - since >= 1) [since, count] = [at, 0];
    if (++count > MOST_PER_SECOND) return refuse(`more than ${MOST_PER_SECOND} packets in a second`);
    if (bytes.length > MOST_BYTES) return refuse(`a packet of ${bytes.length} bytes`);
    const packet = decodeOsc(bytes);
    if (packet.kind === 'bad') return refuse(packet.why);
    count += packet.messages.length - 1;
    for (const message of packet.messages) take(message, address, at);
  };
  const listen = (wanted: number) => {
    const fresh = createSocket({ type: 'udp4', reuseAddr: false });
    socket = fresh;
    fresh.on('message', hear);
    fresh.on('error', (error: NodeJS.ErrnoException) => {
      const taken = error.code === 'EADDRINUSE';
      deaf = taken
        ? `Another program listens at port ${wanted}. End it, or choose another.`
        : `Nothing can be heard: ${error.message}`;
      fresh.close();
      if (socket !== fresh) return;
      socket = undefined;
      again = setTimeout(listen, AGAIN_MS, wanted);
    });
    fresh.bind(wanted, host, () => (deaf = null));
  };
  const close = () => {
    clearTimeout(again);
    socket?.close();
    socket = undefined;
  };
  return {
    listenAt(wanted) {
      if (wanted === port) return false;
      port = wanted;
      close();
      deaf = null;
      if (wanted === undefined) [bad, lastBad] = [0, null];
      else listen(wanted);
      return true;
    },
    listensAt: () => port,
    troubles: () => ({ bad, lastBad, deaf }),
    refuse,
    // Nobody may be there, or the network is gone: it is told anew when it changes.
    send: (bytes, to, at) => socket?.send(bytes, to, at, () => undefined),
    close,
  };
}
