// When the events of a timetable are. All times are those of the clock on the wall, see `wall`.

import { LONGEST_EVENT, type Act, type TimedEvent } from '../gig';
import { DAY, dayOf, secondsOf, weekdayOf } from './wall';

/** Once that an event is. Without an end it only begins. */
export type Occurrence = { readonly event: TimedEvent; readonly from: number; readonly to?: number };

/** What happens by the clock: an event begins, or ends. */
export type Due = Occurrence & { readonly what: 'begins' | 'ends'; readonly at: number };

/** No event lasts longer, in days. */
const LONGEST = LONGEST_EVENT / DAY;
/** So far it is looked ahead, in days: four years, for what comes once in many weeks. */
const AHEAD = 1461;

const mondayOf = (day: number): number => day - weekdayOf(day) + 1;

/** An event as it is looked up day by day, in days since 1 January 1970; made once for each. */
type Plan = {
  readonly first: number;
  /** The last day on which it can be. */
  readonly last: number;
  readonly isOn: (day: number) => boolean;
};
const plans = new WeakMap<TimedEvent, Plan>();

function planOf(event: TimedEvent): Plan {
  const before = plans.get(event);
  if (before) return before;
  const { weekly } = event;
  const day = dayOf(event.day);
  const also = new Set(event.also?.map(dayOf));
  const except = new Set(event.except?.map(dayOf));
  const end = weekly ? (weekly.until === undefined ? Infinity : dayOf(weekly.until)) : day;
  const isRegular = (at: number) =>
    weekly
      ? at >= day &&
        at <= end &&
        weekly.days.includes(weekdayOf(at)) &&
        ((mondayOf(at) - mondayOf(day)) / 7) % weekly.every === 0
      : at === day;
  const plan: Plan = {
    first: Math.min(day, ...also),
    last: Math.max(end, ...also),
    isOn: (at) => !except.has(at) && (also.has(at) || isRegular(at)),
  };
  plans.set(event, plan);
  return plan;
}

function onDay(event: TimedEvent, day: number): Occurrence {
  const from = day * DAY + secondsOf(event.time);
  return { event, from, ...(event.length === undefined ? {} : { to: from + event.length }) };
}

/** What begins on the days from one to another, in order. */
export function occurrences(events: readonly TimedEvent[], from: number, to: number): readonly Occurrence[] {
  const found: Occurrence[] = [];
  for (const event of events) {
    const { first, last, isOn } = planOf(event);
    for (let day = Math.max(from, first); day <= Math.min(to, last); day++)
      if (isOn(day)) found.push(onDay(event, day));
  }
  return found.sort((a, b) => a.from - b.from);
}

/** What is on at a moment. */
export function runningAt(events: readonly TimedEvent[], at: number): readonly Occurrence[] {
  const today = Math.floor(at / DAY);
  return occurrences(events, today - LONGEST, today).filter(
    ({ from, to }) => from <= at && to !== undefined && to > at,
  );
}

/** The next time that each event begins after a moment, in order; an event that is over has none. */
export function comingAfter(events: readonly TimedEvent[], at: number): readonly Occurrence[] {
  const today = Math.floor(at / DAY);
  return events
    .flatMap((event) => {
      const { first, last, isOn } = planOf(event);
      const begin = Math.max(today, first);
      for (let day = begin; day <= Math.min(begin + AHEAD, last); day++)
        if (isOn(day) && onDay(event, day).from > at) return [onDay(event, day)];
      return [];
    })
    .sort((a, b) => a.from - b.from);
}

/** What the clock brings next after a moment; undefined where nothing is. */
export function nextDue(events: readonly TimedEvent[], at: number): Due | undefined {
  const ends = runningAt(events, at).map((one): Due => ({ ...one, what: 'ends', at: one.to! }));
  const begins = comingAfter(events, at).map((one): Due => ({ ...one, what: 'begins', at: one.from }));
  return [...ends, ...begins].reduce<Due | undefined>(
    (next, one) => (next && next.at <= one.at ? next : one),
    undefined,
  );
}

/** Somebody who was away so long, in seconds, takes up only what still goes on. */
export const LATE = 60;

export type DueBetween = {
  /** What is to be done now, in order; of two at one moment, ends come first. */
  readonly due: readonly Due[];
  /** What began meanwhile and is not to be done any more. */
  readonly missed: readonly Due[];
};

/**
 * What happened by the clock after one moment, until another. Of what is longer ago than `LATE`, an event that is still on
 * begins late, and one that was on before ends; what has come and gone was missed.
 */
export function dueBetween(events: readonly TimedEvent[], last: number, now: number): DueBetween {
  const since = Math.max(last, now - (LONGEST + 1) * DAY);
  const due: Due[] = [];
  const missed: Due[] = [];
  const isPast = (at: number) => at > since && at <= now;
  for (const one of occurrences(events, Math.floor(since / DAY) - LONGEST, Math.floor(now / DAY))) {
    const { from, to } = one;
    const begins = isPast(from);
    const isWanted = now - from <= LATE || (to !== undefined && to > now);
    if (begins) (isWanted ? due : missed).push({ ...one, what: 'begins', at: from });
    if (to !== undefined && isPast(to) && (!begins || isWanted)) due.push({ ...one, what: 'ends', at: to });
  }
  const order = { ends: 0, begins: 1 };
  return { due: due.sort((a, b) => a.at - b.at || order[a.what] - order[b.what]), missed };
}

/** Looks that the events which are on at a moment have turned on. */
function wantedAt(events: readonly TimedEvent[], at: number): ReadonlySet<string> {
  const begun = runningAt(events, at).flatMap(({ event }) => event.begins);
  return new Set(begun.flatMap((act) => (isStart(act) && act.act === 'look' ? [act.look] : [])));
}
const isStart = (act: Act): boolean => act.act === 'look' && act.press === 'start';

/** What is to be done. A look that an event which goes on wants, too, does not go off. */
export function actsOf(events: readonly TimedEvent[], { event, what, at }: Due): readonly Act[] {
  if (what === 'begins') return event.begins;
  const wanted = wantedAt(events, at);
  return event.ends.filter((act) => act.act !== 'look' || act.press !== 'stop' || !wanted.has(act.look));
}

export type Doing = { readonly event: TimedEvent; readonly what: Due['what']; readonly acts: readonly Act[] };

/**
 * What is to be done at a moment as a timetable was edited, so that what is on is what it says: an event that is on only by now
 * begins, one that is on no more ends, and of one that is still on, light comes and goes as it was changed.
 */
export function doingsOfEdit(
  before: readonly TimedEvent[],
  after: readonly TimedEvent[],
  at: number,
): readonly Doing[] {
  const [was, is] = [runningAt(before, at), runningAt(after, at)];
  const same = (all: readonly Occurrence[], { event }: Occurrence) =>
    all.find((one) => one.event.id === event.id)?.event;
  const ended = was.map((one): Doing => {
    const next = same(is, one);
    if (!next) return { event: one.event, what: 'ends', acts: actsOf(after, { ...one, what: 'ends', at }) };
    const wanted = wantedAt(after, at);
    const gone = one.event.begins.flatMap((act): readonly Act[] =>
      act.act === 'look' && isStart(act) && !wanted.has(act.look)
        ? [{ act: 'look', look: act.look, press: 'stop' }]
        : [],
    );
    return { event: next, what: 'ends', acts: gone };
  });
  const begun = is.map((one): Doing => {
    const old = same(was, one)?.begins.map((act) => JSON.stringify(act)) ?? [];
    return {
      event: one.event,
      what: 'begins',
      acts: one.event.begins.filter((act) => !old.includes(JSON.stringify(act))),
    };
  });
  return [...ended, ...begun].filter(({ acts }) => acts.length > 0);
}
