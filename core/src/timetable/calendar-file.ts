// Timetables as calendar files (iCalendar, RFC 5545): written for a calendar to show, and read from one.

import ICAL from 'ical.js';
import { RRule } from 'rrule';
import { TimedEvent } from '../gig';
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
/** Rules that are none of days of the week become single days, for so long from their first. */
const AHEAD_DAYS = 731;
const MOST_DAYS = 400;
const LONGEST = 7 * DAY;
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
    const called = String(component.getFirstPropertyValue('summary') ?? '').trim() || 'Event without a name';
    if (String(component.getFirstPropertyValue('status') ?? '').toUpperCase() === 'CANCELLED') continue;
    try {
      const read = eventOf(component, called.slice(0, 120), local);
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

type Read = { readonly event: CalendarEvent; readonly remark?: string } | { readonly wrong: string };

function eventOf(component: ICAL.Component, name: string, local: (utc: number) => number): Read {
  const start = startOf(component);
  if (!start) return { wrong: 'it has no time at which it begins' };
  const from = wallOf(start, local);
  const { day, time } = written(from);
  const length = lengthOf(component, start);
  if (length > LONGEST) return { wrong: 'it lasts longer than a week' };
  const moved = component.getFirstPropertyValue('recurrence-id');
  const uid = String(component.getFirstPropertyValue('uid') ?? `${name} ${day} ${time}`);
  const days = (property: string) =>
    component
      .getAllProperties(property)
      .flatMap((one) => one.getValues())
      .flatMap((value) => (value instanceof ICAL.Time && isReal(value) ? [written(wallOf(value, local)).day] : []));
  const except = days('exdate').slice(0, MOST_DAYS);
  const rule = ruleOf(component, start, Math.floor(from / DAY) - civilDay(start));
  const also = [...days('rdate'), ...(rule.also ?? [])].slice(0, MOST_DAYS);
  const event = TimedEvent.omit({ id: true, begins: true, ends: true }).parse({
    name,
    day,
    time,
    ...(length > 0 ? { length } : {}),
    ...(rule.weekly ? { weekly: rule.weekly } : {}),
    ...(also.length > 0 ? { also } : {}),
    ...(except.length > 0 ? { except } : {}),
    // One that was moved out of a series is an event by itself.
    uid: (moved ? `${uid} ${String(moved)}` : uid).slice(0, 300),
  });
  return { event: { ...event, uid: event.uid! }, ...(rule.remark ? { remark: rule.remark } : {}) };
}

function startOf(component: ICAL.Component): ICAL.Time | undefined {
  try {
    const start = component.getFirstPropertyValue('dtstart');
    return start instanceof ICAL.Time && isReal(start) ? start : undefined;
  } catch {
    return undefined;
  }
}

/** Ones of a series that were moved or renamed have events of their own: the series leaves them out. */
function moveOnes(all: readonly ICAL.Component[], events: Map<string, CalendarEvent>, local: (utc: number) => number) {
  for (const component of all) {
    const moved = component.getFirstPropertyValue('recurrence-id');
    const series = events.get(String(component.getFirstPropertyValue('uid') ?? ''));
    if (!(moved instanceof ICAL.Time) || !series) continue;
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

function lengthOf(component: ICAL.Component, start: ICAL.Time): number {
  const duration = component.getFirstPropertyValue('duration');
  if (duration instanceof ICAL.Duration) return Math.max(0, duration.toSeconds());
  const end = component.getFirstPropertyValue('dtend');
  if (end instanceof ICAL.Time && isReal(end)) return Math.max(0, end.subtractDateTz(start).toSeconds());
  return start.isDate ? DAY : 0;
}

type Rule = {
  readonly weekly?: NonNullable<TimedEvent['weekly']>;
  readonly also?: readonly string[];
  readonly remark?: string;
};

/** @param shift days between a day in the zone of the event and here. */
function ruleOf(component: ICAL.Component, start: ICAL.Time, shift: number): Rule {
  const rule = component.getFirstPropertyValue('rrule');
  if (!(rule instanceof ICAL.Recur)) return {};
  const text = rule.toString();
  const first = civilDay(start);
  const days = () => daysOf(text, first, rule.count ?? undefined);
  const plain = Object.keys(rule.parts).every((part) => part === 'BYDAY' && rule.freq === 'WEEKLY');
  const simple = plain && (rule.freq === 'WEEKLY' || (rule.freq === 'DAILY' && rule.interval === 1));
  const codes = (rule.parts['BYDAY'] as readonly string[] | undefined) ?? [];
  // Weeks that begin on another day than Monday differ only where every second one counts.
  const sameWeeks = rule.interval === 1 || rule.wkst === ICAL.Time.MONDAY || codes.length <= 1;
  if (!simple || !sameWeeks) {
    const found = days();
    const also = found.filter((day) => day !== first).map((day) => dayText(day + shift));
    const more = rule.until === null && (rule.count === null || rule.count > found.length);
    return { also, ...(more ? { remark: `its days are taken for two years from ${dayText(first)}` } : {}) };
  }
  const own = weekdayOf(first);
  const named = codes.length > 0 ? codes.map((code) => CODES.indexOf(code as (typeof CODES)[number]) + 1) : [own];
  const before = rule.freq === 'DAILY' ? [1, 2, 3, 4, 5, 6, 7] : named;
  const until = rule.until ? dayText(civilDay(rule.until) + shift) : rule.count ? lastOf(days(), shift) : undefined;
  return {
    weekly: {
      days: before.map((day) => ((day - 1 + shift + 7) % 7) + 1).sort((a, b) => a - b),
      every: Math.min(52, rule.interval),
      ...(until === undefined ? {} : { until }),
    },
  };
}

const lastOf = (days: readonly number[], shift: number): string | undefined => {
  const last = days.at(-1);
  return last === undefined ? undefined : dayText(last + shift);
};

/** Days of a rule, of two years or as many as it counts. */
function daysOf(rule: string, first: number, count: number | undefined): readonly number[] {
  const start = `${dayText(first).replaceAll('-', '')}T120000Z`;
  const end = `${dayText(first + (count === undefined ? AHEAD_DAYS : 20 * AHEAD_DAYS)).replaceAll('-', '')}T120000Z`;
  const parts = rule.split(';').filter((part) => !/^(?:UNTIL|BYHOUR|BYMINUTE|BYSECOND)=/.test(part));
  if (!parts.some((part) => /^FREQ=(?:DAILY|WEEKLY|MONTHLY|YEARLY)$/.test(part)))
    throw new Error('it comes more often than once a day');
  const untilOwn = /UNTIL=(\d{8})/.exec(rule)?.[1];
  const until = untilOwn === undefined || `${untilOwn}T235959Z` > end ? end : `${untilOwn}T235959Z`;
  const bounded = [...parts.filter((part) => count === undefined || !part.startsWith('UNTIL')), `UNTIL=${until}`];
  const days: number[] = [];
  const made = RRule.fromString(`DTSTART:${start}\nRRULE:${bounded.join(';')}`);
  made.all((date) => {
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
      return TimedEvent.parse({ ...one, id, begins, ends, uid });
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
