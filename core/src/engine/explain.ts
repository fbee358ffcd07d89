// Why does a lamp do what it does? The same evaluation as `render`, with a witness.

import { frozenShare, type LiveState } from '../live';
import { rampAt } from '../light';
import { rangeAt, type Fixture } from '../rig';
import type { Id, Seconds } from '../units';
import { blackoutAt, evaluate } from './evaluate';
import { LEVEL } from './fields';
import { layTests } from './held-channels';
import type { Program } from './program';
import { takeMasters } from './render';
import { writeHead } from './write';
import type { Head } from './parts';

export type Contribution = {
  /** What spoke: “look Harbour blue”, “lane Looks: Full sail”, “lane Looks: dark”, “in hand: Movers”. */
  readonly source: string;
  readonly attribute: string;
  /** The numbers asked for, in the units of the fields, as waves leave them at this moment. */
  readonly values: readonly number[];
  /** How much of it counts, 0…1. */
  readonly weight: number;
  /** Whether a wave moves it. */
  readonly moving: boolean;
  /** Whether it is the one that is seen: for levels the highest, else the last. */
  readonly wins: boolean;
};

/** What keeps a lamp dark, in order of what to look at first. */
export type Darkness =
  | 'not-cast'
  | 'no-level-set'
  | 'level-0'
  | 'role-master-down'
  | 'master-down'
  | 'blackout'
  | 'shutter-closed'
  | 'emitters-0'
  | 'lamp-off'
  | 'overlap'
  | 'not-sending';

export type Explanation = {
  readonly fixture: Fixture;
  readonly contributions: readonly Contribution[];
  /** 0…1 after masters. */
  readonly level: number;
  /** What masters and blackout leave of every level. */
  readonly master: number;
  readonly dark: readonly Darkness[];
  /** The lamp's bytes, from its address on: the very ones `render` writes. */
  readonly bytes: readonly number[];
  /** True where the light is frozen: it is that of a moment before. */
  readonly frozen: boolean;
  /** True where a test or a hand in Connect holds some of these bytes over the show. */
  readonly held: boolean;
};

/** @returns undefined for a fixture the program does not have. A bar is explained by its first cell; `bytes` has all. */
export function explain(
  program: Program,
  live: LiveState,
  at: Seconds,
  fixture: Id<'Fixture'>,
): Explanation | undefined {
  const index = program.heads.findIndex((head) => head.fixture.id === fixture);
  if (index < 0) return undefined;
  const head = program.heads[index]!;
  const heard = contributionsTo(program, live, at, index);
  takeMasters(program, live, at);
  const master = program.scratch.masters[index]!;
  const wanted = program.fields[LEVEL]!.values[index]!;
  const shown = bytesOf(program, head, live, at);
  const bytes = bytesOf(program, head, live, at, (frame) => layTests(program.universes, live, at, frame));
  return {
    fixture: head.fixture,
    contributions: withWinners(heard),
    level: wanted * master,
    master,
    dark: [
      ...darknessOf(head, heard, wanted, live, at),
      ...channelDarkness(head, bytes, wanted * master),
      ...(program.overlapping.has(fixture) ? ['overlap' as const] : []),
      ...(live.sending ? [] : ['not-sending' as const]),
    ],
    bytes,
    frozen: frozenShare(live.frozen, at) >= 1,
    held: bytes.some((value, i) => value !== shown[i]),
  };
}

/** `rules`: a hand, or a dark clip, which takes what is below it down as well; `scales`: it asks for nothing itself. */
type Heard = Omit<Contribution, 'wins'> & { readonly rules: boolean; readonly scales?: boolean };

function contributionsTo(program: Program, live: LiveState, at: Seconds, index: number): readonly Heard[] {
  const heard: Heard[] = [];
  let source = '';
  let lane = 0;
  let rules = false;
  let fader = 1;
  evaluate(program, live, at, {
    lane: (level) => {
      lane = heard.length;
      fader = level;
    },
    yields: (rise) => {
      for (let i = lane; i < heard.length; i++) heard[i] = { ...heard[i]!, weight: heard[i]!.weight * (1 - rise) };
    },
    source: (kind, name, of) => {
      rules = kind === 'hand';
      if (kind !== 'lane') fader = 1;
      source = {
        look: `look ${name}`,
        lane: `lane ${of}: ${name}`,
        hit: `hit ${name} of ${of}`,
        hand: `by hand: ${name}`,
      }[kind];
    },
    row: (strand, row, weight) => {
      if (strand.heads[row] !== index) return;
      const { name, width } = program.fields[strand.field]!;
      const values = Array.from(strand.live.subarray(row * width, (row + 1) * width));
      heard.push({ source, attribute: name, values, weight: weight * fader, moving: strand.motions.length > 0, rules });
    },
    dark: (weight) => {
      heard.push({ source, attribute: 'level', values: [0], weight: weight * fader, moving: false, rules: true });
    },
    curve: ({ name, blend, field }, head, value) => {
      if (head !== index) return;
      const does = { scale: 'scales it', add: 'adds', replace: 'sets it' }[blend];
      const told = { attribute: program.fields[field]!.name, values: [value], weight: 1, moving: true };
      heard.push({ source: `curve ${name}, ${does}`, ...told, rules: blend === 'replace', scales: blend === 'scale' });
    },
  });
  return heard;
}

function withWinners(heard: readonly Heard[]): readonly Contribution[] {
  const best = new Map<string, Heard>();
  for (const one of heard.filter(({ scales }) => !scales)) {
    const before = best.get(one.attribute);
    const height = (of: Heard) => of.values[0]! * of.weight;
    const stays =
      before && one.attribute === 'level' && !(one.rules && one.weight > 0.5) && height(before) > height(one);
    if (!stays && one.weight > 0) best.set(one.attribute, one);
  }
  return heard.map((one) => {
    const { rules: _, scales: __, ...told } = one;
    return { ...told, wins: best.get(one.attribute) === one };
  });
}

function darknessOf(
  head: Head,
  heard: readonly Heard[],
  wanted: number,
  live: LiveState,
  at: Seconds,
): readonly Darkness[] {
  const reasons: Darkness[] = [];
  const lit = heard.some((one) => one.attribute === 'level' && one.weight > 0 && !one.scales);
  if (head.roles.length === 0 && !lit) reasons.push('not-cast');
  else if (!lit) reasons.push('no-level-set');
  else if (wanted <= 0) reasons.push('level-0');
  const down = live.roleMasters.some(({ role, ramp }) => head.roles.includes(role) && rampAt(ramp, at) <= 0);
  if (down) reasons.push('role-master-down');
  if (live.blackout.on && !head.fixture.freeOfBlackout) reasons.push('blackout');
  else if (rampAt(live.master, at) <= 0 && !head.fixture.freeOfMaster) reasons.push('master-down');
  return reasons;
}

/** What the lamp's own channels say, whatever its level is. */
function channelDarkness({ mode }: Head, bytes: readonly number[], level: number): readonly Darkness[] {
  const reasons: Darkness[] = [];
  const does = (attribute: string) => {
    const channel = mode.channels.find((one) => one.attribute === attribute);
    const value = channel && bytes[channel.at[0]! - 1];
    return channel && value !== undefined ? rangeAt(channel, value)?.does : undefined;
  };
  if (does('Shutter1') === 'closed') reasons.push('shutter-closed');
  const emitters = mode.channels.filter(({ attribute }) => attribute.startsWith('ColorAdd_'));
  const dark = emitters.every(({ at }) => at.every((place) => (bytes[place - 1] ?? 0) === 0));
  if (emitters.length > 0 && dark && level > 0) reasons.push('emitters-0');
  if (does('LampControl') === 'lamp off') reasons.push('lamp-off');
  return reasons;
}

function bytesOf(
  program: Program,
  { fixture, mode }: Head,
  live: LiveState,
  at: Seconds,
  over: (frame: Uint8Array) => void = () => undefined,
): number[] {
  const frame = new Uint8Array(program.universes.length * 512);
  const dark = blackoutAt(live, at);
  program.heads.forEach((head, i) => head.fixture.id === fixture.id && writeHead(program, i, dark, at, frame));
  over(frame);
  const start = program.universes.indexOf(fixture.universe) * 512 + fixture.address - 1;
  const length = mode.channels.reduce((most, channel) => Math.max(most, ...channel.at), 0);
  return Array.from(frame.subarray(start, start + Math.min(length, 513 - fixture.address)));
}
