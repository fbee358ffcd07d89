// Why does a lamp do what it does? The same evaluation as `render`, with a witness.

import type { LiveState } from '../live/state';
import type { Fixture } from '../rig';
import type { Id, Seconds } from '../units';
import { COLUMNS, GROUPS, HAS_LEVEL, LEVEL } from './columns';
import { blackoutAt, evaluate } from './evaluate';
import type { Head, Program } from './program';
import { grandAt, headMaster, writeHead } from './render';
import { layTests } from './held-channels';

export type Contribution = {
  /** What spoke: “look Harbour blue”, “lane Looks: Full sail”, “lane Looks: dark”. */
  readonly source: string;
  readonly attribute: string;
  /** The numbers asked for, in the units of the columns. */
  readonly values: readonly number[];
  /** How much of it counts, 0…1. */
  readonly weight: number;
};

/** What keeps a lamp dark, in order of what to look at first. */
export type Darkness = 'not-cast' | 'nothing-speaks' | 'level-0' | 'master-down' | 'blackout' | 'not-sending';

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
  /** True where a test or a hand in Links holds some of these bytes over the show. */
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
  const contributions: Contribution[] = [];
  const snaps = program.snaps.subarray(index * GROUPS.length, (index + 1) * GROUPS.length);
  evaluate(program, live, at, {
    look: (of, row, sheet, weight) => {
      if (of === index) contributions.push(...spoken(`look ${sheet.name}`, sheet, row, weight, snaps));
    },
    clip: (of, row, sheet, weight, lane) => {
      if (of !== index) return;
      const source = `lane ${lane.name}: ${sheet?.name ?? 'dark'}`;
      if (sheet) contributions.push(...spoken(source, sheet, row, weight, snaps));
      else contributions.push({ source, attribute: 'level', values: [0], weight });
    },
  });
  const master = headMaster(program.plans[index]!, grandAt(live, at), blackoutAt(live, at));
  const level = program.scratch.values[index * COLUMNS + LEVEL]! * master;
  const shown = bytesOf(program, fixture, live, at);
  const bytes = bytesOf(program, fixture, live, at, (frame) => layTests(program.universes, live, at, frame));
  return {
    fixture: head.fixture,
    contributions,
    level,
    master,
    dark: darknessOf(head, contributions, program.scratch.values[index * COLUMNS + LEVEL]!, live, master),
    bytes,
    held: bytes.some((value, i) => value !== shown[i]),
  };
}

function spoken(
  source: string,
  sheet: { readonly has: Uint16Array; readonly values: Float32Array },
  row: number,
  weight: number,
  snaps: Uint8Array,
): Contribution[] {
  const has = sheet.has[row]!;
  const snapped = (group: (typeof GROUPS)[number]) => snaps[GROUPS.indexOf(group)] === 1;
  const numbers = (first: number, count: number) =>
    Array.from(sheet.values.subarray(row * COLUMNS + first, row * COLUMNS + first + count));
  const groups = GROUPS.filter((_, g) => has & (2 << g)).map((group) => ({
    source,
    attribute: group.name as string,
    values: numbers(group.first, group.count),
    weight: snapped(group) ? 1 : weight,
  }));
  return has & HAS_LEVEL ? [{ source, attribute: 'level', values: numbers(LEVEL, 1), weight }, ...groups] : groups;
}

function darknessOf(
  head: Head,
  contributions: readonly Contribution[],
  wanted: number,
  live: LiveState,
  master: number,
): Darkness[] {
  const reasons: Darkness[] = [];
  const speaks = contributions.some((one) => one.attribute === 'level' && one.weight > 0);
  if (head.parts.length === 0) reasons.push('not-cast');
  else if (!speaks) reasons.push('nothing-speaks');
  else if (wanted <= 0) reasons.push('level-0');
  if (live.blackout.on && !head.fixture.freeOfBlackout) reasons.push('blackout');
  else if (master <= 0) reasons.push('master-down');
  if (!live.sending) reasons.push('not-sending');
  return reasons;
}

function bytesOf(
  program: Program,
  fixture: string,
  live: LiveState,
  at: Seconds,
  over: (frame: Uint8Array) => void = () => undefined,
): number[] {
  const frame = new Uint8Array(program.universes.length * 512);
  const [grand, dark] = [grandAt(live, at), blackoutAt(live, at)];
  program.heads.forEach((head, i) => head.fixture.id === fixture && writeHead(program, i, grand, dark, at, frame));
  over(frame);
  const { fixture: patch, mode } = program.heads.find((head) => head.fixture.id === fixture)!;
  const start = program.universes.indexOf(patch.universe) * 512 + patch.address - 1;
  const length = mode.channels.reduce((most, channel) => Math.max(most, ...channel.at), 0);
  return Array.from(frame.subarray(start, start + Math.min(length, 513 - patch.address)));
}
