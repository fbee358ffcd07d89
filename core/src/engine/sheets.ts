// What a look says, as strands of numbers: one for each field and each value that sets it.

import { own } from '../own';
import {
  familyOfName,
  movingIn,
  numberAt,
  pickedPlaces,
  valueAt,
  type Drive,
  type Look,
  type LookValue,
  type Setting,
  type Times,
} from '../light';
import { amountsOf, attributeOf, dmxOfPhysical, openOf, physicalOfDmx, type Channel, type Range } from '../rig';
import { AIM, COLOUR, GOBO, HAZE, LEVEL, MOVE, SLOT, STROBE, ZOOM } from './fields';
import { aimBetween, channelOf, labOf, settingValue, type Aimed, type Ground } from './ground';
import { mixesColour } from './head-plan';
import { fieldsMoved, motionOf } from './motions';
import { flashSpanIn, SHUTTER } from './safety';
import type { Head, Row, Sheet, Strand } from './parts';

type Said = Pick<Look, 'times' | 'snaps'>;

/** Of two values that set the same field of one head, the later one counts. */
export function sheetOf(name: string, values: readonly LookValue[], said: Said, ground: Ground): Sheet {
  const work = sheetIn(name, values, said, ground);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

/** The same a millisecond at a time. */
export function* sheetIn(
  name: string,
  values: readonly LookValue[],
  said: Said,
  ground: Ground,
): Generator<void, Sheet> {
  const free = yield* freeSheetIn(name, values, said, ground);
  return { ...free, span: yield* flashSpanIn(free, ground) };
}

/** Not yet held back by flash safety. */
function* freeSheetIn(name: string, values: readonly LookValue[], said: Said, ground: Ground): Generator<void, Sheet> {
  const strands: Strand[] = [];
  const heard = new Map<number, Uint8Array>();
  for (const value of [...values].reverse()) {
    const members = membersOf(value, ground);
    const stated = new Set(fieldsSetBy({ ...value, followers: undefined }, ground));
    for (const field of fieldsSetBy(value, ground)) {
      const claimed = heard.get(field) ?? new Uint8Array(ground.heads.length);
      heard.set(field, claimed);
      const rows: Row[] = [];
      members.forEach((head, place) => {
        if (claimed[head] === 1) return;
        // A lamp that hears nothing is left alone by what only follows the sound.
        if (ground.heads[head]!.fixture.deaf && !stated.has(field)) return;
        const numbers = rowOf(value, field, ground.heads[head]!, place, members.length, ground);
        if (numbers) rows.push({ head, place, count: members.length, values: numbers });
      });
      for (const { head } of rows) claimed[head] = 1;
      if (rows.length > 0) strands.push(strandOf(value, field, rows, said, ground));
    }
    yield;
  }
  const waves = strands.flatMap(({ motions }) => motions.filter(({ input }) => !input));
  const timing = waves.every(({ timed }) => timed) ? 'seconds' : waves.some(({ timed }) => timed) ? 'both' : 'beats';
  const timed = strands.some((strand) => strand.fadeIn >= 0 || strand.fadeOut >= 0);
  return { name, strands, timed, covers: new Uint8Array(ground.fields.length), timing, span: Infinity };
}

/** Heads in cast order, cells of a bar one after the other. */
function membersOf({ role, pick, lamps }: LookValue, { casts, headsOf }: Ground): readonly number[] {
  const cast = role === undefined ? [...new Set(lamps)] : (casts.get(role) ?? []);
  const members: number[] = [];
  for (const place of pickedPlaces(pick, cast.length)) {
    const heads = headsOf.get(cast[place]!);
    if (heads) for (const head of heads) members.push(head);
  }
  return members;
}

function fieldsSetBy(value: LookValue, { ownFields }: Ground): readonly number[] {
  const fields = new Set<number>();
  if (value.level) fields.add(LEVEL);
  if (value.colour) fields.add(COLOUR).add(SLOT);
  if (value.aim) fields.add(AIM);
  if (value.strobe) fields.add(STROBE);
  if (value.gobo) fields.add(GOBO);
  if (value.zoom) fields.add(ZOOM);
  if (value.haze) fields.add(HAZE);
  for (const attribute of Object.keys(value.more ?? {})) addOwn(attribute);
  for (const moving of movingIn(value)) for (const field of fieldsMoved(moving, ownFields)) fields.add(field);
  return [...fields];

  function addOwn(attribute: string): void {
    const field = ownFields.get(attribute);
    if (field !== undefined) fields.add(field);
  }
}

/** The numbers of one head in one field; undefined where this head cannot do it. */
function rowOf(
  value: LookValue,
  field: number,
  head: Head,
  place: number,
  count: number,
  ground: Ground,
): readonly number[] | undefined {
  const single = (drive: Drive<number> | undefined, rest: number) => [drive ? numberAt(drive, place, count) : rest];
  switch (field) {
    case LEVEL:
      return single(value.level, 0);
    case COLOUR:
      return colourAt(value, place, count);
    case SLOT:
      return goesByWheel(head) ? [ground.slotOf(head.profile, colourAt(value, place, count))] : undefined;
    case AIM:
      return value.aim && aimAt(value.aim, head, place, count, ground);
    case MOVE:
      return head.profile.panRange > 0 ? [0, 0] : undefined;
    case STROBE:
      return single(value.strobe, 0);
    case GOBO:
      return single(value.gobo, 0);
    case ZOOM:
      return single(value.zoom, 0.5);
    case HAZE:
      return single(value.haze, 0);
    default:
      return ownAt(value, ground.fields[field]!.name, head, place, count, ground.most);
  }
}

/** Two filters of one colour one after the other would make another one. */
const goesByWheel = (head: Head): boolean => head.profile.colours.length > 0 && !mixesColour(head);

const mixedNumbers = (from: readonly number[], to: readonly number[], share: number) =>
  from.map((number, i) => number + (to[i]! - number) * share);

function colourAt(value: LookValue, place: number, count: number): readonly number[] {
  return value.colour ? valueAt(value.colour, place, count, labOf, mixedNumbers) : [1, 0, 0];
}

function aimAt(
  drive: NonNullable<LookValue['aim']>,
  head: Head,
  place: number,
  count: number,
  ground: Ground,
): Aimed | undefined {
  return valueAt(
    drive,
    place,
    count,
    (aim) => ground.aimed(aim, head),
    (from, to, share) => (from && to ? aimBetween(head, from, to, share) : (from ?? to)),
  );
}

/**
 * A channel that is told to strobe by its value or by the name of a range, as a shutter or a white may be, as fast as flash
 * safety lets it; where none of its range is so slow, it is open.
 */
function heldStrobe(channel: Channel, value: number | undefined, most: number): number | undefined {
  if (value === undefined || most === Infinity) return value;
  const dmx = Math.round(value * 255);
  const range = channel.ranges.find(({ from, to }) => dmx >= from && dmx <= to);
  if (!range || (SHUTTER.test(channel.attribute) ? STILL.has(range.does) : range.does !== 'strobe')) return value;
  // Without figures nobody knows how fast it is.
  const [low, high] = [range.low ?? Infinity, range.high ?? Infinity];
  if (range.does === 'strobe' && physicalOfDmx({ ...range, low, high }, dmx) <= most) return value;
  if (range.does === 'strobe' && Math.min(low, high) <= most) return dmxOfPhysical(range, most) / 255;
  return SHUTTER.test(channel.attribute) ? openOf(channel) / 255 : (amountsOf(channel)?.most ?? 1);
}

/** What a shutter does that is no strobe; all else of it may be one that has no name. */
const STILL: ReadonlySet<Range['does']> = new Set(['open', 'closed', 'nothing']);

function ownAt(
  value: LookValue,
  attribute: string,
  head: Head,
  place: number,
  count: number,
  most: number,
): readonly number[] | undefined {
  const channel = channelOf(head, attribute);
  if (!channel) return undefined;
  const drive: Drive<Setting> | undefined = own(value.more, attribute);
  if (!drive) return [channel.home ?? 0];
  const number = valueAt(
    drive,
    place,
    count,
    (setting) => heldStrobe(channel, settingValue(channel, setting), most),
    (from, to, share) => (from === undefined || to === undefined ? from : from + (to - from) * share),
  );
  return number === undefined ? undefined : [number];
}

const NONE = new Uint8Array(0);

function strandOf(value: LookValue, field: number, rows: readonly Row[], said: Said, ground: Ground): Strand {
  const { name, width, snaps } = ground.fields[field]!;
  const family = familyOfName(name, (attribute) => attributeOf(attribute).family);
  const times: Times | undefined = own(said.times, name) ?? own(said.times, family);
  const jumps = field === SLOT ? undefined : own(said.snaps, name);
  const values = new Float64Array(rows.length * width);
  const heads = new Int32Array(rows.length);
  const snapped = new Uint8Array(rows.length);
  const free = field === AIM ? new Uint8Array(rows.length) : NONE;
  rows.forEach((row, i) => {
    heads[i] = row.head;
    snapped[i] = Number(jumps ?? snaps[row.head] === 1);
    for (let c = 0; c < width; c++) values[i * width + c] = row.values[c]!;
    if (field === AIM) free[i] = row.values[width]!;
  });
  const motions = movingIn(value).flatMap((moving) => motionOf(moving, field, rows, ground) ?? []);
  return {
    shines: ground.shines[field] === 1 || field === SLOT,
    field,
    count: rows.length,
    heads,
    values,
    live: motions.length > 0 ? values.slice() : values,
    snaps: snapped,
    jumps: snapped.includes(1),
    free,
    fadeIn: value.times?.in ?? times?.in ?? -1,
    fadeOut: value.times?.out ?? times?.out ?? -1,
    motions,
  };
}
