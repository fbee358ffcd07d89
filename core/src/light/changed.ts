// A look or a chase as one clip plays it: faster or slower, dimmer, in other colours.

import type { Follower } from './follow';
import { driveMapped, recoloured } from './recolour';
import type { Chase, Look, LookValue } from './schema';
import type { Span, Wave } from './wave';

/** How fast its waves and chases go and how high its levels are, of their own; degrees its colours are turned by. */
export type Change = { readonly speed: number; readonly level: number; readonly turn: number };

export const changedLook = (look: Look, change: Change): Look => ({
  ...look,
  values: changedValues(look.values, change),
});

/** Its steps' levels are scaled as a whole: the looks they stand on are changed in pace and colour only. */
export const changedChase = (chase: Chase, change: Change): Chase => ({
  ...chase,
  steps: chase.steps.map((step) => ({
    ...step,
    fade: step.fade / change.speed,
    hold: step.hold / change.speed,
    level: step.level * change.level,
    values: changedValues(step.values, { ...change, level: 1 }),
  })),
});

export function changedValues(values: readonly LookValue[], { speed, level, turn }: Change): LookValue[] {
  const scaled = <One extends Wave | Follower>(moving: One): One =>
    'on' in moving && moving.on === 'level'
      ? { ...moving, low: moving.low * level, high: moving.high * level }
      : moving;
  const coloured = turn === 0 ? values : recoloured(values, turn);
  return coloured.map((value) => ({
    ...value,
    ...(value.level ? { level: driveMapped(value.level, (one) => one * level) } : {}),
    ...(value.waves ? { waves: value.waves.map((wave) => ({ ...scaled(wave), span: spanAt(wave.span, speed) })) } : {}),
    ...(value.followers ? { followers: value.followers.map(scaled) } : {}),
  }));
}

const spanAt = (span: Span, speed: number): Span =>
  'beats' in span ? { beats: span.beats / speed } : { seconds: span.seconds / speed };
