// Laying what sheets say over one another: straight onto what is below, or gathered as one lane first.

import { LEVEL, AIM, type Field } from './fields';
import type { CurveLaneProgram, LookLaneProgram } from './lane-program';
import type { Program } from './program';
import type { Sheet, Strand, Struck, Timing } from './parts';

/** Told of each row that is laid on. `weight` is how much of it counts, 0…1. */
export type Witness = {
  /** Whose values come next: a look, a lane's clip, a step, a hit, a hand; and the lane or the kit it is of. */
  readonly source: (kind: 'look' | 'lane' | 'hit' | 'hand', name: string, of: string) => void;
  readonly row: (strand: Strand, row: number, weight: number) => void;
  readonly dark: (weight: number) => void;
  /** A curve moves a field of a head. */
  readonly curve: (lane: CurveLaneProgram, head: number, value: number) => void;
  /** A lane begins, with its fader at so much; and what it has said so far gives way by so much to a clip that rises. */
  readonly lane: (level: number) => void;
  readonly yields: (rise: number) => void;
};

/** Forgets the last frame. Fields that nobody touched hold their home already. */
export function clearFields(program: Program): void {
  for (let f = 0; f < program.fields.length; f++) {
    const field = program.fields[f]!;
    if (!field.touched) continue;
    field.touched = false;
    field.weights.fill(0);
    if (field.width === 1) field.values.fill(field.home[0]!);
    else for (let i = 0; i < field.values.length; i++) field.values[i] = field.home[i % field.width]!;
  }
  program.scratch.mixedAims.fill(0);
}

/** From home to sums: before the first contribution a field is made of nothing, not of its home. */
export function touch(field: Field): void {
  if (field.touched) return;
  field.touched = true;
  field.values.fill(0);
}

/** 0 before `from`, 1 from `to` on, in a straight line between them. */
export function rampBetween(at: number, from: number, to: number): number {
  return at >= to ? 1 : at <= from ? 0 : (at - from) / (to - from);
}

function riseOf(timing: Timing, strand: Strand): number {
  const own = timing.leaving ? strand.fadeOut : strand.fadeIn;
  if (own < 0) return timing.rise;
  const share = rampBetween(timing.at, timing.begin, timing.begin + own * timing.pulse);
  return timing.from + (timing.to - timing.from) * share;
}

/** How much of a strand counts at the moment that the timing tells. */
function weightOf(timing: Timing, strand: Strand): number {
  const fall =
    strand.fadeOut < 0 || timing.end === Infinity
      ? timing.fall
      : 1 - rampBetween(timing.at, timing.end - strand.fadeOut * timing.pulse, timing.end);
  return riseOf(timing, strand) * fall * timing.scale;
}

/** Most strands go by the look's own fades: then the share of one is that of all, and nothing is passed about. */
const isPlain = (strand: Strand): boolean => strand.fadeIn < 0 && strand.fadeOut < 0;

/** Lays a sheet straight over what is below. Levels merge by height; the rest by who came last. */
export function laySheet(program: Program, sheet: Sheet, witness?: Witness): void {
  const { timing } = program.scratch;
  const common = timing.rise * timing.fall * timing.scale;
  for (let s = 0; s < sheet.strands.length; s++) {
    const strand = sheet.strands[s]!;
    const weight = isPlain(strand) ? common : weightOf(timing, strand);
    if (weight <= 0) continue;
    const field = program.fields[strand.field]!;
    if (field.shows > program.scratch.layer) {
      if (witness) tell(witness, strand, weight);
      continue;
    }
    touch(field);
    if (strand.field === LEVEL) layHighest(field, strand, weight, witness);
    else layLatest(program, field, strand, weight, witness);
  }
}

function layHighest(field: Field, strand: Strand, weight: number, witness?: Witness): void {
  const { values, weights } = field;
  for (let row = 0; row < strand.count; row++) {
    const head = strand.heads[row]!;
    const level = strand.live[row]! * weight;
    weights[head] = 1;
    if (level > values[head]!) values[head] = level;
    if (witness) witness.row(strand, row, weight);
  }
}

function layLatest(program: Program, field: Field, strand: Strand, weight: number, witness?: Witness): void {
  const { values, weights, width } = field;
  const { live, heads, snaps, count } = strand;
  const { mixedAims } = program.scratch;
  const isAim = strand.field === AIM;
  for (let row = 0; row < count; row++) {
    const head = heads[row]!;
    const share = snaps[row] ? 1 : weight;
    const keep = 1 - share;
    if (isAim) mixedAims[head] = Number(keep > 0 && weights[head]! > 0);
    weights[head] = weights[head]! * keep + share;
    const to = head * width;
    const from = row * width;
    for (let c = 0; c < width; c++) values[to + c] = values[to + c]! * keep + live[from + c]! * share;
    if (witness) witness.row(strand, row, share);
  }
}

/** A hand replaces, downwards too. */
export function layHand(program: Program, sheet: Sheet, weight: number, witness?: Witness): void {
  for (let s = 0; s < sheet.strands.length; s++) {
    const strand = sheet.strands[s]!;
    const field = program.fields[strand.field]!;
    touch(field);
    if (strand.field !== LEVEL) {
      layLatest(program, field, strand, weight, witness);
      continue;
    }
    for (let row = 0; row < strand.count; row++) {
      const head = strand.heads[row]!;
      field.weights[head] = 1;
      field.values[head] = field.values[head]! * (1 - weight) + strand.live[row]! * weight;
      if (witness) witness.row(strand, row, weight);
    }
  }
}

/** Lays a hit at a height of 0…1. */
export function layHit(program: Program, { sheet, hit }: Struck, height: number, witness?: Witness): void {
  if (hit.blend === 'replace') return layHand(program, sheet, height, witness);
  const { timing } = program.scratch;
  timing.rise = height;
  timing.fall = 1;
  timing.scale = 1;
  timing.end = Infinity;
  laySheet(program, sheet, witness);
}

/** Begins to gather a lane: nothing of it is there yet. */
export function beginLane(program: Program): void {
  for (let f = 0; f < program.fields.length; f++) {
    const field = program.fields[f]!;
    if (!field.laneTouched) continue;
    field.laneTouched = false;
    field.laneValues.fill(0);
    field.laneWeights.fill(0);
  }
  program.scratch.laneMixedAims.fill(0);
}

/**
 * Takes what is gathered down to make room for something that rises: each field by as much as the newcomer has risen.
 * Where a strand of the newcomer has times of its own, its heads are taken down by its own rise.
 */
export function scaleLane(program: Program, sheet: Sheet | null): void {
  const { timing } = program.scratch;
  for (let f = 0; f < program.fields.length; f++) {
    const field = program.fields[f]!;
    if (!field.laneTouched) continue;
    if (sheet?.timed) scaleByStrands(field, f, sheet, timing);
    else {
      const left = 1 - timing.rise;
      for (let i = 0; i < field.laneValues.length; i++) field.laneValues[i] = field.laneValues[i]! * left;
      for (let i = 0; i < field.laneWeights.length; i++) field.laneWeights[i] = field.laneWeights[i]! * left;
    }
  }
}

function scaleByStrands(field: Field, index: number, sheet: Sheet, timing: Timing): void {
  // Heads that the newcomer does not set go by the look's own fade, marked by a negative weight while they wait.
  const { laneValues, laneWeights, width } = field;
  for (let s = 0; s < sheet.strands.length; s++) {
    const strand = sheet.strands[s]!;
    if (strand.field !== index || strand.fadeIn < 0) continue;
    const left = 1 - riseOf(timing, strand);
    for (let row = 0; row < strand.count; row++) {
      const head = strand.heads[row]!;
      if (laneWeights[head]! <= 0) continue;
      for (let c = 0; c < width; c++) laneValues[head * width + c] = laneValues[head * width + c]! * left;
      laneWeights[head] = -laneWeights[head]! * left;
    }
  }
  const left = 1 - timing.rise;
  for (let head = 0; head < laneWeights.length; head++) {
    if (laneWeights[head]! < 0) laneWeights[head] = -laneWeights[head]!;
    else {
      for (let c = 0; c < width; c++) laneValues[head * width + c] = laneValues[head * width + c]! * left;
      laneWeights[head] = laneWeights[head]! * left;
    }
  }
}

/**
 * Adds a sheet to what is gathered; what jumps counts whole from the first. What does not show is only told of.
 * @param next the step that takes its place: what fades in there fades out here, though it once came with a jump.
 */
export function addToLane(program: Program, sheet: Sheet, level: number, witness?: Witness, next?: Sheet): void {
  const { timing, laneMixedAims } = program.scratch;
  const common = timing.rise * timing.fall * timing.scale;
  for (let s = 0; s < sheet.strands.length; s++) {
    const strand = sheet.strands[s]!;
    const weight = isPlain(strand) ? common : weightOf(timing, strand);
    if (weight <= 0) continue;
    const field = program.fields[strand.field]!;
    if (witness) tell(witness, strand, weight);
    if (field.shows > program.scratch.layer) continue;
    field.laneTouched = true;
    if (strand.field === AIM) markMixed(field, strand, laneMixedAims);
    const scale = strand.field === LEVEL ? level : 1;
    if (strand.jumps && !(next && fadesIn(next, strand.field))) addJumping(field, strand, weight, scale);
    else addFading(field, strand, weight, weight * scale);
  }
}

function fadesIn({ strands }: Sheet, field: number): boolean {
  for (let s = 0; s < strands.length; s++) if (strands[s]!.field === field && !strands[s]!.jumps) return true;
  return false;
}

function tell(witness: Witness, strand: Strand, weight: number): void {
  for (let row = 0; row < strand.count; row++) witness.row(strand, row, strand.snaps[row] ? 1 : weight);
}

/** An aim is a mix where two places have a share in it; the same place twice is none. */
function markMixed({ laneWeights, laneValues }: Field, { heads, live, snaps, count }: Strand, mixed: Uint8Array): void {
  for (let row = 0; row < count; row++) {
    const head = heads[row]!;
    const weight = laneWeights[head]!;
    if (snaps[row] !== 0 || weight <= 0) mixed[head] = 0;
    else if (mixed[head] === 0)
      for (let c = 0; c < 5; c++)
        if (Math.abs(laneValues[head * 5 + c]! - weight * live[row * 5 + c]!) > 1e-9) mixed[head] = 1;
  }
}

function addFading({ laneValues, laneWeights, width }: Field, strand: Strand, weight: number, share: number): void {
  const { heads, live, count } = strand;
  if (width === 1) {
    for (let row = 0; row < count; row++) {
      const head = heads[row]!;
      laneWeights[head] = laneWeights[head]! + weight;
      laneValues[head] = laneValues[head]! + live[row]! * share;
    }
    return;
  }
  for (let row = 0; row < count; row++) {
    const head = heads[row]!;
    laneWeights[head] = laneWeights[head]! + weight;
    const to = head * width;
    const from = row * width;
    for (let c = 0; c < width; c++) laneValues[to + c] = laneValues[to + c]! + live[from + c]! * share;
  }
}

function addJumping({ laneValues, laneWeights, width }: Field, strand: Strand, weight: number, scale: number): void {
  const { heads, live, snaps, count } = strand;
  for (let row = 0; row < count; row++) {
    const head = heads[row]!;
    const keep = snaps[row] ? 0 : 1;
    const share = snaps[row] ? 1 : weight;
    laneWeights[head] = laneWeights[head]! * keep + share;
    for (let c = 0; c < width; c++) {
      const to = head * width + c;
      laneValues[to] = laneValues[to]! * keep + live[row * width + c]! * share * scale;
    }
  }
}

/** Lays what was gathered over what is below. `dark` forces that much of what is below to zero, `weight` is the whole. */
export function mergeLane(program: Program, blend: LookLaneProgram['blend'], dark: number, weight: number): void {
  for (let f = 0; f < program.fields.length; f++) {
    const field = program.fields[f]!;
    if (f === LEVEL) {
      if (field.laneTouched || (dark > 0 && field.touched)) mergeLevels(field, blend, dark, weight);
    } else if (field.laneTouched) mergeLatest(program, field, f === AIM, weight);
  }
}

function mergeLevels(field: Field, blend: LookLaneProgram['blend'], dark: number, weight: number): void {
  touch(field);
  const { values, weights, laneValues, laneWeights, laneTouched } = field;
  for (let head = 0; head < weights.length; head++) {
    const below = values[head]! * (1 - dark);
    const own = laneTouched ? laneValues[head]! * weight : 0;
    const presence = laneTouched ? laneWeights[head]! * weight : 0;
    values[head] =
      blend === 'highest'
        ? own > below
          ? own
          : below
        : blend === 'replace'
          ? below * (1 - presence) + own
          : blend === 'add'
            ? Math.min(1, below + own)
            : below * (own + 1 - presence);
    if (presence > 0 || dark > 0) weights[head] = 1;
  }
}

function mergeLatest(program: Program, field: Field, isAim: boolean, weight: number): void {
  touch(field);
  const { values, weights, laneValues, laneWeights, width, snaps } = field;
  const { mixedAims, laneMixedAims } = program.scratch;
  for (let head = 0; head < weights.length; head++) {
    const gathered = laneWeights[head]!;
    if (gathered * weight <= 0) continue;
    // What jumps is not mixed with what is below, however far the whole has risen.
    const share = snaps[head] ? 1 : gathered * weight;
    const scale = snaps[head] ? 1 / gathered : weight;
    const keep = 1 - share;
    if (isAim) mixedAims[head] = laneMixedAims[head]! | Number(keep > 1e-9 && weights[head]! > 0);
    weights[head] = weights[head]! * keep + share;
    for (let c = head * width; c < head * width + width; c++) values[c] = values[c]! * keep + laneValues[c]! * scale;
  }
}

/** Puts all that is laid aside, and begins anew: what takes its place is laid next. */
export function keepLaid(program: Program): void {
  const { mixedAims, keptMixedAims } = program.scratch;
  for (let f = 0; f < program.fields.length; f++) {
    const { touched, values, weights, keptValues, keptWeights } = program.fields[f]!;
    if (touched) {
      keptValues.set(values);
      keptWeights.set(weights);
    } else {
      keptValues.fill(0);
      keptWeights.fill(0);
    }
  }
  keptMixedAims.set(mixedAims);
  clearFields(program);
}

/** Mixes what is laid with `share` of what was kept: sums and weights alike, so that nothing dips or pales between them. */
export function mixKept(program: Program, share: number): void {
  markBetween(program, share);
  for (let f = 0; f < program.fields.length; f++) {
    const field = program.fields[f]!;
    touch(field);
    const { values, weights, keptValues, keptWeights, width, snaps } = field;
    for (let head = 0; head < weights.length; head++) {
      // What jumps is at its new place at once; where only the old light sets it, it stays until the end.
      const jumps = snaps[head] === 1 && weights[head]! + keptWeights[head]! > 0;
      const old = jumps ? Number(weights[head]! <= 0) : share;
      weights[head] = weights[head]! * (1 - old) + keptWeights[head]! * old;
      for (let c = head * width; c < head * width + width; c++)
        values[c] = values[c]! * (1 - old) + keptValues[c]! * old;
    }
  }
}

/** An aim on its way from one place to another is a mix of both. */
function markBetween({ scratch, fields }: Program, share: number): void {
  const { weights, keptWeights, snaps } = fields[AIM]!;
  const { mixedAims, keptMixedAims } = scratch;
  for (let head = 0; head < weights.length; head++) {
    if (weights[head]! <= 0) mixedAims[head] = keptMixedAims[head]!;
    else if (keptWeights[head]! > 0 && snaps[head] !== 1 && share > 0 && share < 1) mixedAims[head] = 1;
  }
}
