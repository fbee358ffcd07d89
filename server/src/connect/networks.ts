// The networks this computer is in, as far as DMX is concerned: IPv4.

import { networkInterfaces } from 'node:os';
import type { NetworkFace } from '@hovlix/core/connect';

export function networksOfThisComputer(): NetworkFace[] {
  return Object.entries(networkInterfaces()).flatMap(([name, faces]) =>
    (faces ?? [])
      .filter(({ family }) => family === 'IPv4')
      .map(({ address, netmask, internal }) => ({
        name,
        address,
        netmask,
        broadcast: broadcastOf(address, netmask),
        internal,
      })),
  );
}

/** The address that all devices of a network hear: all host bits set (RFC 919). */
export function broadcastOf(address: string, netmask: string): string {
  const mask = netmask.split('.').map(Number);
  return address
    .split('.')
    .map((part, i) => (Number(part) | (~mask[i]! & 255)) & 255)
    .join('.');
}

/** True where `address` can be reached without a router. */
export function isInNetwork(address: string, face: NetworkFace): boolean {
  return broadcastOf(address, face.netmask) === face.broadcast;
}

/** The named network, or without a name the first that leads out of this computer. */
export function faceFor(name: string | null, faces: readonly NetworkFace[]): NetworkFace | undefined {
  if (name !== null) return faces.find((face) => face.name === name);
  return faces.find((face) => !face.internal);
}
