// What the Connect place says, worked out without a screen.

import {
  silenceInWords,
  troubleInWords,
  type NetworkFace,
  type OutputRow,
  type RowReport,
  type Status,
  type Way,
} from '@hovlix/core/connect';
import { attributeOf, patchedFixtures } from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import type { Tone } from '../../ui/card';
import { HANGS_ON, STATES } from './words';

/** A row's state in a word and a colour, and why where there is a why. */
export function stateOf(
  row: OutputRow,
  report: RowReport | undefined,
): { word: string; tone: Tone; why: string | null } {
  if (!row.on) return { word: STATES.off, tone: '$faint', why: silenceInWords('row-off') };
  if (!report) return { word: STATES.starting, tone: '$faint', why: null };
  if (report.trouble) return { word: STATES.failed, tone: '$fault', why: troubleInWords(report.trouble) };
  if (report.state === 'live') return { word: STATES.live, tone: '$live', why: null };
  return { word: STATES.silent, tone: '$warn', why: report.silence && silenceInWords(report.silence) };
}

/** Two rows that send the same universe number to the same receivers: their light would fight. */
export function twins(rows: readonly OutputRow[]): readonly string[] {
  const mouth = ({ way }: OutputRow) =>
    way.protocol === 'serial' ? `serial ${way.path}` : `${way.protocol} ${way.to} ${way.network} ${way.number}`;
  const on = rows.filter((row) => row.on);
  return on.filter((row) => on.some((other) => other !== row && mouth(other) === mouth(row))).map((row) => row.id);
}

/** Universes of the rig that no output carries. */
export function unsent(show: Show, rows: readonly OutputRow[]): readonly number[] {
  const used = new Set(rigInUse(show).fixtures.map(({ universe }) => universe as number));
  for (const row of rows) if (row.on) used.delete(row.universe);
  return [...used].sort((a, b) => a - b);
}

export function networkChoices(networks: readonly NetworkFace[]): { value: string; name: string }[] {
  return [
    { value: '', name: HANGS_ON.automatic },
    ...networks.map((face) => ({
      value: face.name,
      name: `${face.name} · ${face.address}${face.internal ? HANGS_ON.thisComputerOnly : ''}`,
    })),
  ];
}

/** One thing a lamp may hang on: where the first minute begins. */
export type FirstChoice = { readonly key: string; readonly title: string; readonly detail: string; readonly way: Way };

/** What is there to send through, the likeliest first: cables, nodes that answered, networks. */
export function firstChoices(status: Status, universe: number): readonly FirstChoice[] {
  const cables = status.serialPorts.map((port) => ({
    key: port.path,
    title: port.standIn ? port.name : HANGS_ON.cable(port.name),
    detail: port.standIn ? HANGS_ON.standIn : port.path,
    way: { protocol: 'serial', kind: /plain/i.test(port.name) ? 'plain' : 'framed', path: port.path } as const,
  }));
  const nodes = (status.input?.nodes ?? []).map((node) => ({
    key: `${node.address} ${node.outputs.join()}`,
    title: HANGS_ON.node(node.shortName || node.longName),
    detail: HANGS_ON.artnet(node.address, node.outputs),
    way: { protocol: 'artnet', to: node.address, network: null, number: node.outputs[0] ?? universe - 1 } as const,
  }));
  const networks = status.networks
    .filter((face) => !face.internal)
    .map((face) => ({
      key: face.name,
      title: HANGS_ON.network(face.name),
      detail: HANGS_ON.sacn(face.address),
      way: { protocol: 'sacn', to: 'multicast', network: face.name, number: universe, priority: 100 } as const,
    }));
  return [...cables, ...nodes, ...networks].sort((a, b) => Number(isStandIn(a.title)) - Number(isStandIn(b.title)));
}

/** Real things go before what ships with the app. */
function isStandIn(title: string): boolean {
  return /stand-in|Hovlix node/.test(title);
}

/** What a channel does, by the rig: “Wash 1: red”. */
export function channelName(show: Show | undefined, universe: number, address: number): string | null {
  const found = show && lampAt(show, universe, address);
  return found ? `${found.fixture.name}: ${found.does}` : null;
}

/** The same channel of every lamp of the same type and mode, wherever it is patched. */
export function sameChannels(
  show: Show,
  universe: number,
  address: number,
): { readonly label: string; readonly channels: readonly { universe: number; address: number }[] } | null {
  const found = lampAt(show, universe, address);
  if (!found) return null;
  const offset = address - found.fixture.address;
  const alike = patchedFixtures(rigInUse(show), show.profiles).filter(
    ({ fixture }) => fixture.profile === found.fixture.profile && fixture.mode === found.fixture.mode,
  );
  return {
    label: `${found.does} of all ${alike.length} ${found.profile.model}`,
    channels: alike.map(({ fixture }) => ({ universe: fixture.universe, address: fixture.address + offset })),
  };
}

/** Shorter than their names in a type. */
const SHORTER: Readonly<Record<string, string>> = { Shutter1: 'shutter', ColorAdd_UV: 'ultraviolet' };

function lampAt(show: Show, universe: number, address: number) {
  for (const one of patchedFixtures(rigInUse(show), show.profiles)) {
    if (one.fixture.universe !== universe) continue;
    const place = address - one.fixture.address + 1;
    const channel = one.mode.channels.find(({ at }) => at.includes(place));
    if (!channel) continue;
    const word = channel.name ?? SHORTER[channel.attribute] ?? attributeOf(channel.attribute).name.toLowerCase();
    const cell = channel.cell === undefined ? '' : ` ${channel.cell + 1}`;
    const fine = ['', ' fine', ' ultra-fine'][channel.at.indexOf(place)] ?? '';
    return { ...one, does: `${word}${cell}${fine}` };
  }
  return undefined;
}
