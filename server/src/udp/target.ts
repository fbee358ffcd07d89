// Where DMX goes, as people type it: sacn:multicast, sacn:127.0.0.1, artnet:10.0.0.20, each with :port if need be.

import { isIPv4 } from 'node:net';
import { ARTNET_PORT, SACN_PORT } from '@hovlix/core/wire';

export type Target = {
  readonly protocol: 'sacn' | 'artnet';
  /** An IPv4 address, or `multicast` (sACN only). */
  readonly host: string;
  readonly port: number;
};

/** @returns undefined for anything else. */
export function parseTarget(text: string): Target | undefined {
  const match = /^(sacn|artnet):([^:]+)(?::(\d{1,5}))?$/.exec(text.trim());
  if (!match) return undefined;
  const protocol = match[1] as Target['protocol'];
  const host = match[2]!;
  const port = match[3] ? Number(match[3]) : protocol === 'sacn' ? SACN_PORT : ARTNET_PORT;
  const reachable = isIPv4(host) || (host === 'multicast' && protocol === 'sacn');
  return reachable && port > 0 && port < 65536 ? { protocol, host, port } : undefined;
}

export function targetText({ protocol, host, port }: Target): string {
  const usual = protocol === 'sacn' ? SACN_PORT : ARTNET_PORT;
  return `${protocol}:${host}${port === usual ? '' : `:${port}`}`;
}
