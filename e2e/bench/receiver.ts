// Packets as they arrive at a receiver, and when the host of this virtual machine took its processors away meanwhile.

import { createSocket } from 'node:dgram';

export type Receiver = {
  /** When each packet of the first universe arrived, in ms. */
  readonly heard: number[];
  readonly close: () => void;
};

/** Hears the first universe (sACN: its number is in bytes 113 and 114 of ANSI E1.31-2018, clause 4.1). */
export async function receiver(port: number): Promise<Receiver> {
  const socket = createSocket('udp4');
  const heard: number[] = [];
  socket.on(
    'message',
    (packet) => packet.length > 600 && packet.readUInt16BE(113) === 1 && heard.push(performance.now()),
  );
  await new Promise<void>((resolve) => socket.bind(port, '127.0.0.1', resolve));
  return { heard, close: () => socket.close() };
}

/** A packet counts when the host took no time away within so many ms of it. */
const NEAR = 300;
const LOOKED_EVERY = 20;

/** Notes when the host takes time away. @param stolen seconds it has taken so far. @returns the moments, in ms, once it is ended. */
export function watchedHost(stolen: () => number): () => readonly number[] {
  const robbed: number[] = [];
  let before = stolen();
  const watch = setInterval(() => {
    const now = stolen();
    if (now > before) robbed.push(performance.now());
    before = now;
  }, LOOKED_EVERY);
  return () => {
    clearInterval(watch);
    return robbed;
  };
}

/** How often packets came, and the gaps between them in ms that the host had no part in. */
export function spacingOf(times: readonly number[], robbed: readonly number[]) {
  const gaps = times.slice(1).map((at, i) => ({ at, gap: at - times[i]! }));
  const quiet = gaps.filter(({ at }) => !robbed.some((time) => Math.abs(time - at) < NEAR)).map(({ gap }) => gap);
  return { perSecond: gaps.length / ((times.at(-1)! - times[0]!) / 1000), quiet, robbed: gaps.length - quiet.length };
}
