// A row in words, the same on every screen and in every log.

import { never } from '../problem';
import type { OutputRow, Way } from './schema';

/** Where a row goes: “sACN to everyone”, “Art-Net to 10.0.0.20”, “USB cable ttyUSB0”. */
export function wayInWords(way: Way): string {
  switch (way.protocol) {
    case 'sacn':
      return `sACN to ${way.to === 'multicast' ? 'everyone (multicast)' : way.to}`;
    case 'artnet':
      return `Art-Net to ${way.to === 'broadcast' ? 'everyone (broadcast)' : way.to}`;
    case 'serial':
      return `USB cable ${way.path.split('/').at(-1)}`;
    default:
      return never(way);
  }
}

/** Universe numbers on the wire, as makers print them: some count from 0, others from 1. */
export function numbersInWords(way: Way): string {
  switch (way.protocol) {
    case 'sacn':
      return `number ${way.number} (devices that count from 0 call it ${way.number - 1})`;
    case 'artnet':
      return `number ${way.number} = net ${way.number >> 8}, sub-net ${(way.number >> 4) & 15}, universe ${way.number & 15} (devices that count from 1 call it ${way.number + 1})`;
    case 'serial':
      return 'one cable carries one universe';
    default:
      return never(way);
  }
}

/** What stands between an output and its lamps. A closed set of facts; `inWords` says it to people. */
export type RowTrouble =
  | { readonly code: 'network-gone'; readonly network: string }
  | { readonly code: 'no-network' }
  | { readonly code: 'cannot-send'; readonly detail: string }
  | { readonly code: 'port-gone'; readonly path: string }
  | { readonly code: 'port-busy'; readonly path: string }
  | { readonly code: 'port-forbidden'; readonly path: string }
  | { readonly code: 'port-slow'; readonly path: string }
  | { readonly code: 'port-fails'; readonly path: string; readonly detail: string };

export function troubleInWords(trouble: RowTrouble): string {
  switch (trouble.code) {
    case 'network-gone':
      return `The network ${trouble.network} is gone. It sends again as soon as the network is back.`;
    case 'no-network':
      return 'This computer is not connected to a network. Plug the network cable in or join the Wi-Fi of your lamps.';
    case 'cannot-send':
      return `The network does not take it (${sendingInWords(trouble.detail)}). Hovlix keeps trying.`;
    case 'port-gone':
      return `The USB cable at ${trouble.path} is not plugged in. It sends again as soon as the cable is back.`;
    case 'port-busy':
      return `Another program holds the USB cable at ${trouble.path}. Close it there; Hovlix keeps trying.`;
    case 'port-forbidden':
      return `This user may not open ${trouble.path}. On Linux, join the group “dialout” and log in again.`;
    case 'port-slow':
      return `The USB cable at ${trouble.path} takes light more slowly than it is sent. Unplug it and plug it in again.`;
    case 'port-fails':
      return `The USB cable at ${trouble.path} does not work (${trouble.detail}). Hovlix keeps trying.`;
    default:
      return never(trouble);
  }
}

/** What the system's short words mean. */
function sendingInWords(detail: string): string {
  if (/ENETUNREACH|EHOSTUNREACH|EADDRNOTAVAIL/.test(detail)) return 'no way leads there from this network';
  if (/ENETDOWN|ENODEV/.test(detail)) return 'the network is down';
  if (/EACCES|EPERM/.test(detail)) return 'the system forbids it: a firewall, or a broadcast address';
  if (/ENOBUFS|EAGAIN/.test(detail)) return 'the network is full';
  return detail;
}

/** A state of an output: what its row says in one word. */
export type RowState = 'live' | 'silent' | 'failed';

/** Why a row that could send does not. */
export type Silence = 'row-off' | 'output-off' | 'nothing-to-send';

export function silenceInWords(why: Silence): string {
  switch (why) {
    case 'row-off':
      return 'This output is switched off.';
    case 'output-off':
      return 'The master output is off.';
    case 'nothing-to-send':
      return 'Nothing to send yet.';
    default:
      return never(why);
  }
}

/** How the table names a row: “Universe 1 · sACN to everyone”. */
export function rowInWords(row: OutputRow): string {
  return `Universe ${row.universe} · ${wayInWords(row.way)}`;
}
