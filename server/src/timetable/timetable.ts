// Does by the clock what the timetable of the show says, while that is wanted. Goes on after a restart where it was.

import { readFileSync } from 'node:fs';
import { z } from 'zod';
import type { Session } from '@hovlix/core/conduct';
import { NO_TIMETABLE, type TimetableReport } from '@hovlix/core/connect';
import type { GearHost } from '@hovlix/core/gear';
import type { Act } from '@hovlix/core/gig';
import { pressWords } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import {
  actsOf,
  doingsOfEdit,
  dueBetween,
  nextDue,
  runningAt,
  written,
  type Doing,
  type Due,
} from '@hovlix/core/timetable';
import type { ConnectionsStore } from '../connect/store';
import { keptWhole } from '../keep/whole';

export type Timetable = {
  /** Null while none is followed. */
  readonly report: () => TimetableReport | null;
  readonly close: () => void;
};

type Start = {
  readonly connections: Pick<ConnectionsStore, 'connections' | 'onChange'>;
  readonly session: Pick<Session, 'shown'>;
  readonly host: GearHost;
  /** Seconds of local time since 1 January 1970. */
  readonly wall: () => number;
  /** Where it is kept up to when all was done. */
  readonly file: string;
  /** Is told in words what is wrong, and null when it is over. */
  readonly say: (why: string | null) => void;
};

/** So often the clock is looked at: light by the clock is at most this late. */
const LOOK_MS = 200;
/** Somebody who types a time passes others on the way: an edit counts once nothing was edited for so long, in seconds. */
const SETTLED = 2;
/** Whoever turns it on, or opens a show, wants what is on by now. */
const BEFORE_ALL = -Infinity;
/** So many missed events are told, for so long, in seconds. */
const MOST_MISSED = 20;
const MISSED_TOLD = 86_400;

/** A clock that is set back by less, in seconds, as at the end of summer, does nothing of that time again. */
const SET_BACK = 2.5 * 3600;
const isLongBefore = (now: number, until: number): boolean => until - now > SET_BACK;

const File = z.object({ show: z.string(), wall: z.number() });

/** The time of day here. */
export function wallNow(): number {
  const now = new Date();
  return now.getTime() / 1000 - now.getTimezoneOffset() * 60;
}

type At = {
  readonly show: string;
  /** What is done, and what it is to be once it was left alone for a while. */
  readonly events: Show['events'];
  readonly edited: { readonly events: Show['events']; readonly settles: number } | null;
  /** All is done up to here. */
  readonly until: number;
  readonly next: Due | undefined;
};

export function followTimetable({ connections, session, host, wall, file, say }: Start): Timetable {
  const isWanted = () => (connections.connections().timetable ?? NO_TIMETABLE).on;
  /** From before a restart. */
  let before = isWanted() ? readFrom(file) : undefined;
  let at: At | undefined;
  let last: TimetableReport['last'] = null;
  let missed: readonly Due[] = [];
  const keep = keptWhole(
    file,
    () => JSON.stringify(at && { show: at.show, wall: at.until }),
    (why) => say(why && `How far the timetable was followed is not kept: ${why}.`),
  );

  const act = (acts: readonly Act[]) => {
    host.doActs(acts, true, host.now());
    // What wants a second press, so that nobody does it by accident, was meant.
    const armed = acts.filter((one) => one.act === 'lamps');
    if (armed.length > 0) host.doActs(armed, true, host.now());
    // As a button that is pressed and let go.
    host.doActs(acts, false, host.now());
  };
  const doIt = ({ event, what, acts }: Doing, when: number) => {
    const moment = host.press();
    last = { name: event.name, what, ...written(when), did: moment ? pressWords(moment, acts) : '' };
    act(acts);
  };
  /** Where a show is taken up: after a restart where it was left, else with what is on by now. */
  const begin = ({ id, events }: Show, now: number): At => {
    const since = before?.show !== id ? BEFORE_ALL : isLongBefore(now, before.wall) ? now : before.wall;
    before = undefined;
    [last, missed] = [null, []];
    return { show: id, events, edited: null, until: since, next: undefined };
  };
  /** @param done is written first: what is done twice after a crash is worse than what is not done. */
  const goOn = (done: At) => {
    at = done;
    keep();
  };
  const doDue = (from: At, now: number) => {
    const { events, until } = from;
    const news = dueBetween(events, until, now);
    const done = Math.max(until, now);
    goOn({ ...from, until: done, next: nextDue(events, done) });
    for (const due of news.due) doIt({ ...due, acts: actsOf(events, due) }, due.at);
    if (until !== BEFORE_ALL) missed = [...missed, ...news.missed].slice(-MOST_MISSED);
  };
  const doEdit = (from: At, events: Show['events'], now: number) => {
    // Until it counted, the clock went by what was there before: what only begins may have come meanwhile.
    const lately = (of: Show['events']) => dueBetween(of, now - SETTLED - 1, now).due;
    const done = new Set(lately(from.events).map(({ event }) => event.id));
    const fresh = lately(events).filter(({ event }) => event.length === undefined && !done.has(event.id));
    goOn({
      ...from,
      events,
      edited: null,
      until: Math.max(from.until, now),
      next: nextDue(events, Math.max(from.until, now)),
    });
    for (const doing of doingsOfEdit(from.events, events, now)) doIt(doing, now);
    for (const due of fresh) doIt({ ...due, acts: due.event.begins }, due.at);
  };
  const look = () => {
    const show = isWanted() ? session.shown() : undefined;
    if (!show) {
      if (!isWanted()) at = undefined;
      return;
    }
    const now = wall();
    if (at?.show !== show.id) return doDue(begin(show, now), now);
    if (isLongBefore(now, at.until)) at = { ...at, until: now, next: nextDue(at.events, now) };
    if (show.events !== (at.edited?.events ?? at.events))
      at = { ...at, edited: { events: show.events, settles: now + SETTLED } };
    if (now >= (at.next?.at ?? Infinity)) doDue(at, now);
    else at = { ...at, until: Math.max(at.until, now) };
    if (at.edited && (now >= at.edited.settles || now < at.edited.settles - SETTLED)) doEdit(at, at.edited.events, now);
  };
  const looking = setInterval(look, LOOK_MS);
  connections.onChange(look);

  return {
    report() {
      if (!isWanted()) return null;
      const now = wall();
      const events = at?.events ?? [];
      const { next } = at ?? {};
      return {
        now: written(now),
        on: runningAt(events, now).map(({ event }) => event.name),
        next: next ? { name: next.event.name, what: next.what, ...written(next.at) } : null,
        last,
        missed: missed.filter((one) => now - one.at < MISSED_TOLD).map(({ event }) => event.name),
      };
    },
    close() {
      clearInterval(looking);
      if (at) keep();
    },
  };
}

function readFrom(file: string): z.infer<typeof File> | undefined {
  try {
    return File.parse(JSON.parse(readFileSync(file, 'utf8')));
  } catch {
    // Nothing was kept, or it cannot be read: what is on by now begins.
    return undefined;
  }
}
