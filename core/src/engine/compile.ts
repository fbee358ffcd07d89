// Turns names into numbers: all of a show at first, and then what an edit changed.

import { courseOf, type Chase, type Look, type LookValue } from '../light';
import type { Role } from '../rig';
import { rigInUse, type Show } from '../show';
import type { Id } from '../units';
import { baseOf, standsOn, type Base } from './base';
import { curveFor } from './follower-inputs';
import type { Ground } from './ground';
import { kitBook } from './kits';
import { lookLanesOf, songsOf, usesOf, type Laying, type Sounds } from './lanes';
import { inputsIn, sheetsIn, type Hand, type Program } from './program';
import { flashSpanOfChase, lightOf } from './safety';
import { sheetIn, sheetOf } from './sheets';
import { markCovers } from './shows';
import { nowhere, turnedPlay, turnedSheets } from './turns';
import { maker, variantOf, type Variant } from './variants';
import type { ChaseProgram, HeadPlan, Play, Sheet } from './parts';

/** A program in the making: each `next()` does a little of it, a millisecond or so, and the last one gives it. */
export type Compiling = Generator<void, Program>;

/**
 * @param rig which rig to compile for; without, the one in use.
 * @param sounds what followers hear in songs. What they make of it is worked out here, once for each song and follower.
 */
export function compile(show: Show, rig?: Id<'Rig'>, sounds?: Sounds): Program {
  return atOnce(compiler()(show, rig, sounds));
}

/** Does all of it in one go. */
export function atOnce(work: Compiling): Program {
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

/** Compiles one show after the other, and works out anew only what is not the same object as the time before. */
export function compiler(): (show: Show, rig?: Id<'Rig'>, sounds?: Sounds) => Compiling {
  let base: Base | undefined;
  return function* (show, rig = rigInUse(show).id, sounds = new Map()) {
    const room = show.rigs.find((candidate) => candidate.id === rig) ?? rigInUse(show);
    if (!base || !standsOn(base, show, room)) base = yield* baseOf(show, room);
    const { ground, plans } = base;
    const plays = yield* playsOf(show.looks, show.chases, base);
    const variants = yield* variantPlays(show, base);
    const sheets = [plays, ...variants.values()].flatMap((some) => [...some.values()].flatMap(sheetsIn));
    const inputs = inputsIn(sheets);
    for (const input of inputs) {
      if (input.source !== 'song' || input.drum) continue;
      for (const envelopes of sounds.values()) {
        curveFor(envelopes, input);
        yield;
      }
    }
    if (base.kits?.of !== show.kits) base.kits = { of: show.kits, struck: kitBook(show.kits, ground) };
    const { struck } = base.kits;
    const playFor: Laying['playFor'] = (lane, clip) => {
      const variant = clip.look && variantOf(lane, clip);
      return clip.look ? ((variant && variants.get(variant.key)) ?? plays).get(clip.look) : undefined;
    };
    const songs = yield* songsOf(show, { ...base, struck, plays, playFor }, sounds);
    if (base.hands?.of !== show.roles) base.hands = { of: show.roles, hand: handBook(ground, show.roles) };
    markCovers(sheets, base.fields.length, plans.length);
    return {
      heads: ground.heads,
      plans,
      table: base.table,
      meter: base.meter,
      universes: base.universes,
      plays,
      songs,
      notes: [...base.notes],
      overlapping: base.overlapping,
      fields: base.fields,
      casts: base.casts,
      hand: base.hands.hand,
      standing: standingPlays(plays, plans),
      inputs,
      struck,
      safety: { most: ground.most, shares: ground.shares, slowest: base.slowest },
      scratch: base.scratch,
    };
  };
}

const SILENT: Sheet = {
  name: '',
  strands: [],
  timed: false,
  covers: new Uint8Array(0),
  timing: 'beats',
  span: Infinity,
};

function* playsOf(
  allLooks: readonly Look[],
  allChases: readonly Chase[],
  base: Base,
  stepLooks = allLooks,
): Generator<void, ReadonlyMap<string, Play>> {
  const { ground, plans } = base;
  const known = new Map<string, Play>();
  for (const look of allLooks) {
    let play = base.looks.get(look);
    if (!play) {
      const sheet = yield* sheetIn(look.name, look.values, look, ground);
      base.looks.set(look, (play = { id: look.id, name: look.name, keep: look.keep, sheet, chase: null }));
    }
    known.set(look.id, play);
  }
  const byId = new Map(stepLooks.map((look) => [look.id as string, look]));
  for (const chase of allChases) {
    const looks = chase.steps.map(({ look }) => (look ? byId.get(look) : undefined));
    let kept = base.chases.get(chase);
    if (!kept || looks.some((look, i) => look !== kept!.looks[i])) {
      const program = yield* chaseProgram(chase, looks, ground, plans);
      const play: Play = { id: chase.id, name: chase.name, keep: chase.keep, sheet: SILENT, chase: program };
      base.chases.set(chase, (kept = { looks, play }));
    }
    known.set(chase.id, kept.play);
  }
  return known;
}

/** By the key of each variant that some clip is played in, the looks and chases that are. */
function* variantPlays(show: Show, base: Base): Generator<void, ReadonlyMap<string, ReadonlyMap<string, Play>>> {
  const used = new Map<string, { readonly variant: Variant; readonly ids: Set<string> }>();
  for (const song of show.songs)
    for (const lane of lookLanesOf(song, base))
      for (const clip of usesOf(lane, base)) {
        const variant = variantOf(lane, clip);
        if (!variant || !clip.look) continue;
        const one = used.get(variant.key) ?? { variant, ids: new Set() };
        used.set(variant.key, one);
        one.ids.add(clip.look);
      }
  const found = new Map<string, ReadonlyMap<string, Play>>();
  for (const [key, { variant, ids }] of used) {
    const known = base.makers.get(key) ?? maker(variant);
    base.makers.set(key, known);
    const looks = show.looks.filter(({ id }) => ids.has(id));
    const chases = show.chases.filter(({ id }) => ids.has(id));
    const underSteps = new Set(chases.flatMap(({ steps }) => steps.map(({ look }) => look)));
    const stepLooks = show.looks.filter(({ id }) => underSteps.has(id));
    found.set(key, yield* playsOf(looks.map(known.look), chases.map(known.chase), base, stepLooks.map(known.stepLook)));
  }
  for (const key of base.makers.keys()) if (!used.has(key)) base.makers.delete(key);
  return found;
}

function* chaseProgram(
  chase: Chase,
  looks: readonly (Look | undefined)[],
  ground: Ground,
  plans: readonly HeadPlan[],
): Generator<void, ChaseProgram> {
  const usual: Sheet[] = [];
  for (const [i, step] of chase.steps.entries()) {
    // What the step says itself is heard over the look it is built on.
    const values = [...(looks[i]?.values ?? []), ...step.values];
    const said = chase.snaps || step.snaps ? { snaps: { ...chase.snaps, ...step.snaps } } : {};
    usual.push(yield* sheetIn(`${chase.name}, step ${i + 1}`, values, said, ground));
  }
  const sheets = turnedSheets(usual, nowhere(plans.length), plans);
  const course = courseOf(chase);
  const lights = sheets.map((sheet, i) => lightOf(sheet, ground.shares, ground.shines, true) * chase.steps[i]!.level);
  return {
    course,
    span: flashSpanOfChase(course, lights, ground.most),
    pace: chase.pace,
    drum: chase.drum ?? 'kick',
    sheets,
    levels: Float64Array.from(chase.steps, (step) => step.level),
  };
}

/** What came on after something else is turned the nearest way from there; worked out once for each press. */
function standingPlays(plays: ReadonlyMap<string, Play>, plans: readonly HeadPlan[]): Program['standing'] {
  const known = new WeakMap<readonly string[], Play>();
  return ({ look, after }) => {
    const usual = plays.get(look);
    if (!usual || !after || after.length === 0) return usual;
    const before = known.get(after);
    if (before) return before;
    const turned = nowhere(plans.length);
    for (const one of after) {
      const play = plays.get(one);
      if (play) turnedPlay(play, turned, plans);
    }
    const play = turnedPlay(usual, turned, plans);
    known.set(after, play);
    return play;
  };
}

/** Values in hand are few and come again each frame; each is turned into numbers once. */
function handBook(ground: Ground, roles: readonly Role[]): Program['hand'] {
  const known = new WeakMap<LookValue, Hand>();
  return (value) => {
    const before = known.get(value);
    if (before) return before;
    const role = roles.find((one) => one.id === value.role);
    const sheet = sheetOf(role?.name ?? 'single lamps', [value], {}, ground);
    const hand = { sheet, inputs: inputsIn([sheet]) };
    known.set(value, hand);
    return hand;
  };
}
