// Looks and chases as clips play them: only to some roles and of some families, faster, dimmer, in other colours.

import { changedChase, changedLook, type Change, type Chase, type Look } from '../light';
import type { Clip, LookLane } from '../song';
import { narrower, once, type Narrower } from './narrow';

type Only = NonNullable<LookLane['only']>;

/** A way in which looks are played that is not as they are stored. */
export type Variant = { readonly key: string; readonly only: Only | undefined; readonly change: Change | undefined };

/** A clip's own pace is kept to a thousandth, its level to a hundredth, its colours to a degree: fewer ways to make. */
const tidy = ({ speed = 1, level = 1, turn = 0 }: Clip): Change => ({
  speed: Math.round(speed * 1000) / 1000,
  level: Math.round(level * 100) / 100,
  turn: Math.round(turn),
});

const onlyKeys = new WeakMap<Only, string>();
function onlyKey(only: Only): string {
  const known = onlyKeys.get(only) ?? JSON.stringify([only.roles, only.families]);
  onlyKeys.set(only, known);
  return known;
}

/** How a lane plays one of its clips; undefined: as it is stored. */
export function variantOf({ only }: LookLane, clip: Clip): Variant | undefined {
  const own = clip.speed !== undefined || clip.level !== undefined || clip.turn !== undefined;
  if (!only && !own) return undefined;
  const change = own ? tidy(clip) : undefined;
  const said = change ? `${change.speed} ${change.level} ${change.turn}` : '';
  return { key: `${only ? onlyKey(only) : ''}|${said}`, only, change };
}

/** What is made of looks and chases. The same one gives the same object, so that what was compiled of it is known again. */
export type Maker = Narrower & {
  /** A look that a step of a chase is built on: the step has its level. */
  readonly stepLook: (look: Look) => Look;
};

export function maker({ only, change }: Variant): Maker {
  const narrow = only && narrower(only);
  const narrowed = (look: Look) => (narrow ? narrow.look(look) : look);
  if (!change) return { look: narrowed, stepLook: narrowed, chase: narrow ? narrow.chase : (chase) => chase };
  const stepChange = { ...change, level: 1 };
  return {
    look: once((look: Look) => changedLook(narrowed(look), change)),
    stepLook: once((look: Look) => changedLook(narrowed(look), stepChange)),
    chase: once((chase: Chase) => changedChase(narrow ? narrow.chase(chase) : chase, change)),
  };
}
