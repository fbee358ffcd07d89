// Events in words: when they are, and what they do.

import { LONGEST_EVENT, MOST_ACTS, type Act, type TimedEvent } from '@hovlix/core/gig';
import { actName, lookName } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { comingAfter, DAY, dayOf, dayText, runningAt, secondsOf, written } from '@hovlix/core/timetable';
import { TIMETABLE } from './words';

const formatted = (options: Intl.DateTimeFormatOptions) => {
  const format = new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', ...options });
  return (day: string) => format.format(dayOf(day) * DAY * 1000);
};
const SHORT = formatted({ weekday: 'short', day: 'numeric', month: 'short' });
const WITH_YEAR = formatted({ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' });
const WEEKDAY = formatted({ weekday: 'long' });

/** Seconds are told only where there are some. */
export const timeText = (time: string): string => (time.endsWith(':00') ? time.slice(0, 5) : time);

/** “today”, “tomorrow”, or “Fri 4 Dec”. */
export function dayWords(day: string, today: string): string {
  const ahead = dayOf(day) - dayOf(today);
  if (ahead === 0) return 'today';
  if (ahead === 1) return 'tomorrow';
  return day.slice(0, 4) === today.slice(0, 4) ? SHORT(day) : WITH_YEAR(day);
}

/** The time of day at which an event ends; undefined where it has no end. */
export function endOf({ day, time, length }: Pick<TimedEvent, 'day' | 'time' | 'length'>): string | undefined {
  return length === undefined ? undefined : written(dayOf(day) * DAY + secondsOf(time) + length).time;
}

/** Days that lie between the day it begins and the day it ends. */
export const daysLater = ({ time, length = 0 }: Pick<TimedEvent, 'time' | 'length'>): number =>
  Math.floor((secondsOf(time) + length) / DAY);

/** How long it lasts so that it ends at a time of day: on the next day where that is not later, or as many days later as it did. */
export function lengthUntil(event: TimedEvent, end: string): number {
  const days = (event.length ?? 0) > DAY ? daysLater(event) : 0;
  const length = secondsOf(end) - secondsOf(event.time) + days * DAY;
  if (length <= 0) return length + DAY;
  return length > LONGEST_EVENT ? length - DAY : length;
}

/** “Every Friday”, “Mon, Tue every 2 weeks”, “Fri 4 Dec 2026”, with the times. */
export function whenWords(event: TimedEvent): string {
  const end = endOf(event);
  const times = timeText(event.time) + (end === undefined ? '' : `–${timeText(end)}`);
  return `${daysWords(event)}, ${times}`;
}

/** A Monday. */
const SOME_MONDAY = dayOf('2026-01-05');

function daysWords({ day, weekly, also = [] }: TimedEvent): string {
  if (!weekly) return WITH_YEAR(day) + (also.length > 0 ? ` and ${also.length} more` : '');
  const weekday = (one: number) => WEEKDAY(dayText(SOME_MONDAY + one - 1));
  const days = weekly.days.toSorted();
  const named =
    days.length === 7
      ? 'day'
      : days.length === 1
        ? weekday(days[0]!)
        : days.map((one) => weekday(one).slice(0, 3)).join(', ');
  const often = weekly.every === 1 ? (days.length === 1 || days.length === 7 ? `Every ${named}` : named) : named;
  return (
    (weekly.every === 1 ? often : `${named === 'day' ? 'Every day' : named}, every ${weekly.every} weeks`) +
    (weekly.until === undefined ? '' : ` until ${SHORT(weekly.until)}`)
  );
}

/** What it does; of a look that goes off again at the end its name says it all. */
export function doesWords(show: Show, event: TimedEvent): string {
  const { begins, ends } = event;
  const isOverAtEnd = (act: Act) =>
    act.act === 'look' && act.press === 'start' && ends.some((end) => isOf(end, act.look));
  const isEndOf = (act: Act) => act.act === 'look' && act.press === 'stop' && startsLook(event, act.look);
  const nameOf = (act: Act) => (act.act === 'look' && isOverAtEnd(act) ? lookName(show, act.look) : actName(show, act));
  const more = ends.filter((act) => !isEndOf(act));
  const words = [
    begins.map(nameOf).join(' + '),
    more.length > 0 ? `at the end: ${more.map((act) => actName(show, act)).join(' + ')}` : '',
  ];
  return words.filter(Boolean).join(' · ') || TIMETABLE.doesNothing;
}

/** The look whose picture stands for it. */
export function lookOf({ begins }: TimedEvent): string | undefined {
  const act = begins.find((one) => one.act === 'look');
  return act?.act === 'look' ? act.look : undefined;
}

export type Row = {
  readonly event: TimedEvent;
  /** When it is next, in words; on now; or over. */
  readonly next: string;
  readonly state: 'on' | 'ahead' | 'over';
};

/** Events in the order in which they come; those that are over last. @param at seconds of local time since 1970. */
export function rowsOf(events: readonly TimedEvent[], at: number): readonly Row[] {
  const { day: today } = written(at);
  // One that overlaps itself is on until the last of it ends.
  const running = [...new Map(runningAt(events, at).map((one) => [one.event, one])).values()];
  const isOn = (event: TimedEvent) => running.some((one) => one.event === event);
  const coming = comingAfter(events, at);
  const ahead = new Set(coming.map(({ event }) => event));
  const row = (event: TimedEvent, state: Row['state'], next: string): Row => ({ event, state, next });
  return [
    ...running.map(({ event, to }) => row(event, 'on', `On now, until ${timeText(written(to!).time)}`)),
    ...coming.flatMap(({ event, from }) => {
      const { day, time } = written(from);
      return isOn(event) ? [] : [row(event, 'ahead', `Next: ${dayWords(day, today)} ${timeText(time)}`)];
    }),
    ...events.filter((event) => !ahead.has(event) && !isOn(event)).map((event) => row(event, 'over', TIMETABLE.over)),
  ];
}

type LookId = Extract<Act, { act: 'look' }>['look'];

const isOf = (act: Act, look: LookId): boolean => act.act === 'look' && act.look === look;

export const startsLook = ({ begins }: TimedEvent, look: LookId): boolean =>
  begins.some((act) => act.act === 'look' && act.press === 'start' && act.look === look);

/** A look comes on as it begins, and goes off where it ends. */
export function withLook(event: TimedEvent, look: LookId): TimedEvent {
  if (event.begins.length === MOST_ACTS) return event;
  return stopping({ ...event, begins: [...event.begins, { act: 'look', look, press: 'start' }] });
}

export function withoutLook(event: TimedEvent, look: LookId): TimedEvent {
  const others = (acts: readonly Act[]) => acts.filter((act) => !isOf(act, look));
  return { ...event, begins: others(event.begins), ends: others(event.ends) };
}

/** With an end: what it turned on goes off there, where nothing else is said of that. */
export function stopping(event: TimedEvent): TimedEvent {
  if (event.length === undefined) return event;
  const off = event.begins.flatMap((act): readonly Act[] =>
    act.act === 'look' && act.press === 'start' && !event.ends.some((end) => isOf(end, act.look))
      ? [{ act: 'look', look: act.look, press: 'stop' }]
      : [],
  );
  return off.length === 0 ? event : { ...event, ends: [...event.ends, ...off].slice(0, MOST_ACTS) };
}

/** Without an end nothing happens there. */
export function endless({ length: _, ...event }: TimedEvent): TimedEvent {
  return { ...event, ends: [] };
}

/** What makes sense with nobody there: no key that is held, and nothing of a screen. */
export function isByTheClock(act: Act): boolean {
  if (act.act === 'look') return act.press === 'start' || act.press === 'stop';
  return !['lock', 'store', 'choose', 'chosen', 'tap', 'nudge', 'section', 'loop'].includes(act.act);
}
