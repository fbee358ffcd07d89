// Where DMX goes, as people type it on the command line: sacn:multicast, sacn:127.0.0.1, artnet:broadcast,
// artnet:10.0.0.20, each with :port if need be; framed:/dev/ttyUSB0 and plain:/dev/ttyUSB0 for cables.

import { isIPv4 } from 'node:net';
import type { Way } from '@hovlix/core/connect';

/** The way to a universe: its number on the wire follows from it. */
export type Target = (universe: number) => Way;

export const TARGETS = 'sacn:multicast, sacn:ADDRESS, artnet:broadcast, artnet:ADDRESS, framed:PATH or plain:PATH';

/** @returns undefined for anything else. */
export function parseTarget(text: string): Target | undefined {
  const cable = /^(framed|plain):(.{1,300})$/.exec(text.trim());
  if (cable) return () => ({ protocol: 'serial', kind: cable[1] as 'framed' | 'plain', path: cable[2]! });
  const match = /^(sacn|artnet):([^:]+)(?::(\d{1,5}))?$/.exec(text.trim());
  if (!match) return undefined;
  const [, protocol, host] = match as unknown as [string, 'sacn' | 'artnet', string];
  const port = match[3] ? Number(match[3]) : undefined;
  if (port !== undefined && (port < 1 || port > 65535)) return undefined;
  if (!isIPv4(host) && host !== (protocol === 'sacn' ? 'multicast' : 'broadcast')) return undefined;
  const rest = { network: null, ...(port === undefined ? {} : { port }) };
  return protocol === 'sacn'
    ? (universe) => ({ protocol, to: host as 'multicast', number: universe, priority: 100, ...rest })
    : // Hovlix counts universes from 1, Art-Net from 0.
      (universe) => ({ protocol, to: host as 'broadcast', number: (universe - 1) & 0x7fff, ...rest });
}
