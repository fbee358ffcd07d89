// Whether a press fits the show that is on and what is on already: what does not never gets into the state.

import { banksOf, lampsOf, movingIn, type LookValue } from '../light';
import { setsOf } from '../gig';
import { handsTaken, type Action, type LiveState } from '../live';
import { rigInUse, type Show } from '../show';
import type { Seconds } from '../units';

/** So much may be in hand: lamps times what is said of each, waves and followers included. */
const MOST_IN_HAND = 40_000;
const MOST_HANDS = 1000;
/** Four universes' worth of bare channels. */
const MOST_HELD = 2048;

const GONE = 'is not in the show that is on.';

/**
 * Checks all that an action names against the show, and that the state stays within its bounds.
 * @param at the conductor's clock. @returns why it may not be, in words; undefined where it may.
 */
export function unfit(show: Show | undefined, state: LiveState, action: Action, at: Seconds): string | undefined {
  const has = (list: readonly { readonly id: string }[] | undefined, id: string) =>
    list?.some((one) => one.id === id) === true;
  const play = (id: string) => (has(show?.looks, id) || has(show?.chases, id) ? undefined : `That look ${GONE}`);
  switch (action.type) {
    case 'open-song':
      return action.song === null || has(show?.songs, action.song) ? undefined : `That song ${GONE}`;
    case 'play':
      return has(show?.songs, action.song) ? undefined : `That song ${GONE}`;
    case 'look-on':
      return play(action.look);
    case 'go':
      return has(show && banksOf(show), action.bank) ? play(action.look) : `That bank ${GONE}`;
    case 'bank':
      return has(show && banksOf(show), action.bank) ? undefined : `That bank ${GONE}`;
    case 'pad':
      // What is held down is let go also when its look was deleted meanwhile.
      return action.down ? play(action.look) : undefined;
    case 'set-place': {
      const set = show && setsOf(show).find(({ id }) => id === action.set);
      return has(set?.entries, action.entry) ? undefined : `That place of the set ${GONE}`;
    }
    case 'role-master':
      return has(show?.roles, action.role) ? undefined : `That role ${GONE}`;
    case 'choose':
      return action.roles.every((role) => has(show?.roles, role)) ? undefined : `That role ${GONE}`;
    case 'notes':
      return show && action.notes.every((note) => notePlays(show, note)) ? undefined : `That hit ${GONE}`;
    case 'hand':
      return show ? handUnfit(show, state, action, at) : 'No show is on.';
    case 'hold-channels':
      return heldAfter(state, action) > MOST_HELD ? `At most ${MOST_HELD} channels can be held at once.` : undefined;
    default:
      return undefined;
  }
}

type Notes = Extract<Action, { type: 'notes' }>['notes'];

function notePlays({ kits, roles }: Show, { kit, hit, role, velocity }: Notes[number]): boolean {
  // What sounds is let go also when its kit was deleted meanwhile.
  if (velocity === 0) return true;
  return (
    roles.some(({ id }) => id === role) && kits.find(({ id }) => id === kit)?.hits.some(({ id }) => id === hit) === true
  );
}

function handUnfit(
  show: Show,
  state: LiveState,
  action: Extract<Action, { type: 'hand' }>,
  at: Seconds,
): string | undefined {
  const { casting, fixtures } = rigInUse(show);
  const lamps = new Set<string>(fixtures.map(({ id }) => id));
  for (const { role, lamps: bare } of action.values) {
    if (role !== undefined && !show.roles.some(({ id }) => id === role)) return `That role ${GONE}`;
    if (bare?.some((lamp) => !lamps.has(lamp))) return 'One of those lamps is not in the rig that is in use.';
  }
  const hands = handsTaken(state.hands, action, at);
  const weight = (value: LookValue) => lampsOf(value, casting).length * saidOf(value);
  const all = hands.reduce((sum, { value }) => sum + weight(value), 0);
  return hands.length > MOST_HANDS || all > MOST_IN_HAND
    ? 'Too many values are held by hand. Release some first.'
    : undefined;
}

const saidOf = (value: LookValue): number =>
  Object.keys(value).length + Object.keys(value.more ?? {}).length + 2 * movingIn(value).length;

function heldAfter({ held }: LiveState, { channels }: Extract<Action, { type: 'hold-channels' }>): number {
  if (held.length + channels.length <= MOST_HELD) return 0;
  const place = ({ universe, address }: (typeof channels)[number]) => universe * 1024 + address;
  return new Set([...held, ...channels].map(place)).size;
}
