// Timetables as calendar files (iCalendar, RFC 5545): written for a calendar to show, and read from one.

import ICAL from 'ical.js';
import { RRule } from 'rrule';
import { LONGEST_EVENT, MOST_DAYS, TimedEvent } from '../gig';
import { failed, ok, type Result } from '../problem';
import type { Show } from '../show';
import { comingAfter } from './occurrences';
import { DAY, dayOf, dayText, secondsOf, weekdayOf, written } from './wall';

/** An event as a calendar has it: when it is, and what it is called. */
export type CalendarEvent = Omit<TimedEvent, 'id' | 'begins' | 'ends' | 'uid'> & { readonly uid: string };

export type CalendarRead = {
  readonly events: readonly CalendarEvent[];
  /** What was left out or changed, in words. */
  readonly remarks: readonly string[];
};

const MOST_LETTERS = 5_000_000;
const MOST_EVENTS = 500;
const MOST_NAME = 120;
/** Rules that are none of days of the week become single days, for so long from their first. */
const AHEAD_DAYS = 731;
const MOST_WEEKS = 52;
const CODES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;

/**
 * Reads the events of a calendar file.
 * @param name of the file, for words. @param local seconds of local time since 1 January 1970 at a moment, in seconds of UTC:
 * times that name a zone are brought to the clock on the wall here.
 * @returns a problem where it is no calendar; an event that cannot be taken is left out and named.
 */
export function readCalendar(text: string, name: string, local: (utc: number) => number): Result<CalendarRead> {
  const bad = (detail: string) => failed({ code: 'not-calendar' as const, name, detail });
  if (text.trim() === '') return failed({ code: 'empty-file', name });
  if (text.length > MOST_LETTERS) return bad('it is longer than 5 MB');
  if (!/^\s*\uFEFF?\s*BEGIN:VCALENDAR/i.test(text)) return bad('it does not begin with BEGIN:VCALENDAR');
  let roots: readonly ICAL.Component[];
  try {
    const parsed = ICAL.parse(text) as unknown[];
    roots = (Array.isArray(parsed[0]) ? parsed : [parsed]).map((one) => new ICAL.Component(one as unknown[]));
  } catch (error) {
    return bad(error instanceof Error ? error.message : String(error));
  }
  const remarks: string[] = [];
  const all = roots.flatMap((root) => root.getAllSubcomponents('vevent'));
  if (all.length === 0) return bad('there is no event in it');
  const events = new Map<string, CalendarEvent>();
  for (const component of all.slice(0, MOST_EVENTS)) {
    const called = named(component);
    if (String(component.getFirstPropertyValue('status') ?? '').toUpperCase() === 'CANCELLED') continue;
    try {
      const read = eventOf(component, called, local);
      if ('wrong' in read) remarks.push(`“${called}” was left out: ${read.wrong}.`);
      else {
        events.set(read.event.uid, read.event);
        if (read.remark) remarks.push(`“${called}”: ${read.remark}.`);
      }
    } catch (error) {
      remarks.push(`“${called}” was left out: ${error instanceof Error ? error.message : String(error)}.`);
    }
  }
  if (all.length > MOST_EVENTS) remarks.push(`Only the first ${MOST_EVENTS} events were taken.`);
  moveOnes(all, events, local);
  return ok({ events: [...events.values()], remarks });
}

const named = (component: ICAL.Component): string =>
  String(component.getFirstPropertyValue('summary') ?? '')
    .trim()
    .slice(0, MOST_NAME) || 'Event without a name';

type Read = { readonly event: CalendarEvent; readonly remark?: string } | { readonly wrong: string };

function eventOf(component: ICAL.Component, name: string, local: (utc: number) => number): Read {
  const start = timeIn(component, 'dtstart');
  if (!start) return { wrong: 'it has no time at which it begins' };
  const from = wallOf(start, local);
  const { day, time } = written(from);
  const length = lengthOf(component, start, local);
  if (length > LONGEST_EVENT) return { wrong: 'it lasts longer than a week' };
  const moved = timeIn(component, 'recurrence-id');
  const uid = String(component.getFirstPropertyValue('uid') ?? `${name} ${day} ${time}`);
  const walls = (property: string) =>
    component
      .getAllProperties(property)
      .flatMap((one) => one.getValues())
      .flatMap((value) => (value instanceof ICAL.Time && isReal(value) ? [written(wallOf(value, local))] : []));
  const except = walls('exdate').map((one) => one.day);
  const besides = walls('rdate');
  const rule = ruleOf(component, { start, from, local });
  const also = [...besides.map((one) => one.day), ...(rule.also ?? [])].slice(0, MOST_DAYS);
  const otherTimes = besides.some((one) => one.time !== time) && !start.isDate;
  const event = TimedEvent.omit({ id: true, begins: true, ends: true }).parse({
    name,
    day,
    time,
    ...(length > 0 ? { length } : {}),
    ...(rule.weekly ? { weekly: rule.weekly } : {}),
    ...(also.length > 0 ? { also } : {}),
    ...(except.length > 0 ? { except: except.slice(0, MOST_DAYS) } : {}),
    // One that was moved out of a series is an event by itself.
    uid: (moved ? `${uid} ${String(moved)}` : uid).slice(0, 300),
  });
  const remark = rule.remark ?? (otherTimes ? `on its days besides it begins at ${time.slice(0, 5)}, too` : undefined);
  return { event: { ...event, uid: event.uid! }, ...(remark === undefined ? {} : { remark }) };
}

/** Undefined where there is none, or one that cannot be read. */
function timeIn(component: ICAL.Component, property: string): ICAL.Time | undefined {
  try {
    const time = component.getFirstPropertyValue(property);
    return time instanceof ICAL.Time && isReal(time) ? time : undefined;
  } catch {
    return undefined;
  }
}

/** Ones of a series that were moved or renamed have events of their own: the series leaves them out. */
function moveOnes(all: readonly ICAL.Component[], events: Map<string, CalendarEvent>, local: (utc: number) => number) {
  for (const component of all) {
    const moved = timeIn(component, 'recurrence-id');
    const series = events.get(String(component.getFirstPropertyValue('uid') ?? ''));
    if (!moved || !series) continue;
    const { day } = written(wallOf(moved, local));
    events.set(series.uid, { ...series, except: [...(series.except ?? []), day].slice(-MOST_DAYS) });
  }
}

/** What the library made of a broken time has no number in it. */
const isReal = ({ year, month, day }: ICAL.Time): boolean => [year, month, day].every(Number.isInteger) && year >= 1970;

const civilDay = ({ year, month, day }: ICAL.Time): number =>
  dayOf(`${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`);

/** As the clock on the wall here shows it. A time without a zone is that of wherever one is (RFC 5545, 3.3.5). */
function wallOf(time: ICAL.Time, local: (utc: number) => number): number {
  const civil = civilDay(time) * DAY + (time.isDate ? 0 : time.hour * 3600 + time.minute * 60 + time.second);
  return time.isDate || time.zone === ICAL.Timezone.localTimezone ? civil : local(time.toUnixTime());
}

/** As the clock on the wall shows it, also over the night in which it is set. */
function lengthOf(component: ICAL.Component, start: ICAL.Time, local: (utc: number) => number): number {
  const duration = component.getFirstPropertyValue('duration');
  if (duration instanceof ICAL.Duration) return Math.max(0, duration.toSeconds());
  const end = component.getFirstPropertyValue('dtend');
  if (end instanceof ICAL.Time && isReal(end)) return Math.max(0, wallOf(end, local) - wallOf(start, local));
  return start.isDate ? DAY : 0;
}

type Rule = {
  readonly weekly?: NonNullable<TimedEvent['weekly']>;
  readonly also?: readonly string[];
  readonly remark?: string;
};

type From = { readonly start: ICAL.Time; readonly from: number; readonly local: (utc: number) => number };

function ruleOf(component: ICAL.Component, { start, from, local }: From): Rule {
  const rule = component.getFirstPropertyValue('rrule');
  if (!(rule instanceof ICAL.Recur)) return {};
  const first = civilDay(start);
  /** Days between a day in the zone of the event and here. */
  const shift = Math.floor(from / DAY) - first;
  const last = rule.until ? lastDayOf(rule.until, from, shift, local) : undefined;
  const days = () => daysOf(rule, first, last === undefined ? undefined : last - shift);
  const plain = Object.keys(rule.parts).every((part) => part === 'BYDAY' && rule.freq === 'WEEKLY');
  const simple = plain && (rule.freq === 'WEEKLY' || (rule.freq === 'DAILY' && rule.interval === 1));
  const codes = (rule.parts['BYDAY'] as readonly string[] | undefined) ?? [];
  // Weeks that begin on another day than Monday differ only where every second one counts.
  const sameWeeks = rule.interval === 1 || rule.wkst === ICAL.Time.MONDAY || codes.length <= 1;
  if (!simple || !sameWeeks || rule.interval > MOST_WEEKS) {
    const found = days();
    const also = found.filter((day) => day !== first).map((day) => dayText(day + shift));
    const more = last === undefined && (rule.count === null || rule.count > found.length);
    return { also, ...(more ? { remark: `its days are taken for two years from ${dayText(first)}` } : {}) };
  }
  const own = weekdayOf(first);
  const named = codes.length > 0 ? codes.map((code) => CODES.indexOf(code as (typeof CODES)[number]) + 1) : [own];
  const before = rule.freq === 'DAILY' ? [1, 2, 3, 4, 5, 6, 7] : named;
  const until = last === undefined ? (rule.count ? lastOf(days(), shift) : undefined) : dayText(last);
  return {
    weekly: {
      days: before.map((day) => ((day - 1 + shift + 7) % 7) + 1).sort((a, b) => a - b),
      every: rule.interval,
      ...(until === undefined ? {} : { until }),
    },
  };
}

/** The last day here on which it may begin: it ends at a moment, which may be of another zone (RFC 5545, 3.3.10). */
function lastDayOf(until: ICAL.Time, from: number, shift: number, local: (utc: number) => number): number {
  if (until.isDate) return civilDay(until) + shift;
  return Math.floor((wallOf(until, local) - (from % DAY)) / DAY);
}

const lastOf = (days: readonly number[], shift: number): string | undefined => {
  const last = days.at(-1);
  return last === undefined ? undefined : dayText(last + shift);
};

/** Days of a rule in the zone of its event, until a last one: of two years, or as many as it counts. */
function daysOf(rule: ICAL.Recur, first: number, last = Infinity): readonly number[] {
  const parts = rule
    .toString()
    .split(';')
    .filter((part) => !/^(?:UNTIL|BYHOUR|BYMINUTE|BYSECOND)=/.test(part));
  if (!parts.some((part) => /^FREQ=(?:DAILY|WEEKLY|MONTHLY|YEARLY)$/.test(part)))
    throw new Error('it comes more often than once a day');
  const ahead = rule.count ? 20 * AHEAD_DAYS : AHEAD_DAYS;
  // At noon, so that nothing turns on hours.
  const noon = (day: number) => `${dayText(day).replaceAll('-', '')}T120000Z`;
  const bounded = [...parts, `UNTIL=${noon(Math.min(last, first + ahead))}`];
  const days: number[] = [];
  RRule.fromString(`DTSTART:${noon(first)}\nRRULE:${bounded.join(';')}`).all((date) => {
    days.push(Math.floor(date.getTime() / 1000 / DAY));
    return days.length < MOST_DAYS;
  });
  return days;
}

/** Events of a calendar as those of a show: one that is there keeps what it does, a new one starts what it is named after. */
export function eventsFrom(
  { events, looks, chases, songs }: Pick<Show, 'events' | 'looks' | 'chases' | 'songs'>,
  read: readonly CalendarEvent[],
  fresh: () => string,
): readonly TimedEvent[] {
  return read.map((one) => {
    const known = events.find((event) => uidOf(event) === one.uid);
    if (known) {
      const { id, begins, ends, uid } = known;
      const { uid: _, ...times } = one;
      return TimedEvent.parse({ ...times, id, begins, ends, ...(uid === undefined ? {} : { uid }) });
    }
    const isMeant = (name: string) => name.trim().toLowerCase() === one.name.toLowerCase();
    const look = [...looks, ...chases].find(({ name }) => isMeant(name))?.id;
    const song = songs.find(({ title }) => isMeant(title))?.id;
    const press = (does: 'start' | 'stop') => (look ? [{ act: 'look', look, press: does }] : []);
    const begins = song && !look ? [{ act: 'play', song }] : press('start');
    return TimedEvent.parse({
      ...one,
      id: fresh(),
      begins,
      ends: one.length === undefined ? [] : press('stop'),
    });
  });
}

const uidOf = ({ id, uid }: TimedEvent): string => uid ?? `${id}@hovlix`;

/**
 * A timetable as a calendar file, in local time without a zone.
 * @param stamp the moment it is written, in UTC, as 20261204T180000Z. @param says what an event does, in words.
 */
export function writeCalendar(
  { name, events }: Pick<Show, 'name' | 'events'>,
  stamp: string,
  says: (event: TimedEvent) => string,
): string {
  const calendar = new ICAL.Component(['vcalendar', [], []]);
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Hovlix//Timetable//EN');
  calendar.updatePropertyWithValue('x-wr-calname', name);
  for (const event of events) calendar.addSubcomponent(componentOf(event, stamp, says(event)));
  return `${calendar.toString()}\r\n`;
}

function componentOf(event: TimedEvent, stamp: string, says: string): ICAL.Component {
  const component = new ICAL.Component('vevent');
  const at = (day: string) => timeOf(dayOf(day) * DAY + secondsOf(event.time));
  // A series begins on a day of its own (RFC 5545, 3.8.5.3).
  const [first] = comingAfter([{ ...event, except: [], also: [] }], dayOf(event.day) * DAY - 1);
  component.updatePropertyWithValue('uid', uidOf(event));
  component.updatePropertyWithValue('dtstamp', ICAL.Time.fromDateTimeString(iso(stamp)));
  component.updatePropertyWithValue('dtstart', first ? timeOf(first.from) : at(event.day));
  if (event.length !== undefined)
    component.updatePropertyWithValue('duration', ICAL.Duration.fromSeconds(event.length));
  component.updatePropertyWithValue('summary', event.name);
  if (says !== '') component.updatePropertyWithValue('description', says);
  const { weekly, also = [], except = [] } = event;
  if (weekly) {
    const days = weekly.days.map((day) => CODES[day - 1]!);
    const until = weekly.until === undefined ? {} : { until: at(weekly.until) };
    component.updatePropertyWithValue(
      'rrule',
      ICAL.Recur.fromData({ freq: 'WEEKLY', interval: weekly.every, byday: days, wkst: ICAL.Time.MONDAY, ...until }),
    );
  }
  for (const day of also) component.addPropertyWithValue('rdate', at(day));
  for (const day of except) component.addPropertyWithValue('exdate', at(day));
  return component;
}

const timeOf = (wall: number): ICAL.Time => {
  const { day, time } = written(wall);
  return ICAL.Time.fromDateTimeString(`${day}T${time}`);
};

const iso = (stamp: string): string => stamp.replace(/^(\d{4})(\d\d)(\d\dT\d\d)(\d\d)(\d\dZ)$/, '$1-$2-$3:$4:$5');
