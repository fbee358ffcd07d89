// The document: everything a show is, but for its music files.

import { z } from 'zod';
import { failed, ok, type Result } from '../problem';
import { Aim, Name, Role, Profile, Rig, idOf } from '../rig/schema';
import { tooMuchIn } from '../rig/patch';
import { Control, Pedal } from '../gig/control';
import { TimedEvent } from '../gig/event';
import { DjPlayer } from '../gig/known-track';
import { SetList } from '../gig/set';
import { Bank } from '../light/bank';
import { Kit } from '../light/hit';
import { Chase, Look } from '../light/schema';
import { Song } from '../song/schema';
import { migrated, NEWEST } from './migrate';

/**
 * Flash safety: while it is on, at most so many flashes of the rig's light a second. Three are what WCAG 2.2 (success
 * criterion 2.3.1) and ITU-R BT.1702-3 hold to be safe.
 */
export const Safety = z.strictObject({ on: z.boolean(), most: z.number().int().min(1).max(10) });
export type Safety = z.infer<typeof Safety>;

/** As a new show has it. */
export const SAFE: Safety = { on: true, most: 3 };

/** How many of each a show may have. */
export const MOST = {
  profiles: 5000,
  rigs: 500,
  roles: 200,
  aims: 1000,
  looks: 5000,
  chases: 1000,
  kits: 64,
  banks: 64,
  songs: 5000,
  sets: 64,
  pedals: 32,
  controls: 1000,
  events: 500,
} as const;

export const Show = z.strictObject({
  format: z.literal('hovlix-show'),
  version: z.literal(NEWEST),
  id: idOf<'Show'>(),
  name: Name,
  profiles: z.array(Profile).max(MOST.profiles),
  rigs: z.array(Rig).min(1).max(MOST.rigs),
  /** The rig in use. */
  rig: idOf<'Rig'>(),
  roles: z.array(Role).max(MOST.roles),
  aims: z.array(Aim).max(MOST.aims),
  looks: z.array(Look).max(MOST.looks),
  chases: z.array(Chase).max(MOST.chases),
  kits: z.array(Kit).max(MOST.kits),
  banks: z.array(Bank).max(MOST.banks),
  songs: z.array(Song).max(MOST.songs),
  /** Set lists; which of them is tonight's. */
  sets: z.array(SetList).max(MOST.sets),
  set: idOf<'Set'>().optional(),
  pedals: z.array(Pedal).max(MOST.pedals),
  /** Switches, keys, knobs, and what they do. */
  controls: z.array(Control).max(MOST.controls),
  /** The timetable: what comes on by the clock. */
  events: z.array(TimedEvent).max(MOST.events),
  /** Tracks of a DJ player, and the songs they are. */
  player: DjPlayer.optional(),
  safety: Safety,
});
export type Show = z.infer<typeof Show>;

/**
 * A show from JSON that came from outside: a file, storage, the network. Older versions are brought up to date.
 * @param name what to call it in a problem's words.
 */
export function readShow(json: unknown, name: string): Result<Show> {
  const current = migrated(json, name);
  if (!current.ok) return current;
  const parsed = Show.safeParse(current.value);
  if (parsed.success) {
    const { rigs, profiles } = parsed.data;
    for (const [i, rig] of rigs.entries()) {
      const detail = tooMuchIn(rig, profiles);
      if (detail) return failed({ code: 'bad-value', name, path: `rigs.${i}.fixtures`, detail });
    }
    return ok(parsed.data);
  }
  const issue = parsed.error.issues[0]!;
  return failed({ code: 'bad-value', name, path: issue.path.join('.') || 'the top', detail: issue.message });
}

/** A show with nothing in it but a rig that has no lamps yet. */
export function emptyShow(own: { readonly id: string; readonly name: string; readonly rig: string }): Show {
  return Show.parse({
    format: 'hovlix-show',
    version: NEWEST,
    id: own.id,
    name: own.name,
    profiles: [],
    rigs: [{ id: own.rig, name: 'My rig', fixtures: [], casting: [] }],
    rig: own.rig,
    roles: [],
    aims: [],
    looks: [],
    chases: [],
    kits: [],
    banks: [],
    songs: [],
    sets: [],
    pedals: [],
    controls: [],
    events: [],
    safety: SAFE,
  } satisfies z.input<typeof Show>);
}

/** The rig in use; the first one where the named one is gone. */
export function rigInUse(show: Show): Rig {
  return show.rigs.find((rig) => rig.id === show.rig) ?? show.rigs[0]!;
}
