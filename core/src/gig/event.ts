// Events of a timetable: what comes on by the clock, on which days, and what happens as it ends.

import { z } from 'zod';
import { idOf, Name } from '../rig/schema';
import { Acts } from './act';

/** A day of the calendar, as 2026-12-04 (ISO 8601). */
export const Day = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}$/, 'a day is written like 2026-12-04')
  .refine((text) => isDay(text), 'there is no such day');

/** A time of day to the second, as 18:30:00: of the clock on the wall where Hovlix runs. */
export const TimeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d:[0-5]\d$/, 'a time is written like 18:30:00');

/** So many single days an event may leave out, and be on besides. */
export const MOST_DAYS = 400;
/** No event lasts longer, in seconds. */
export const LONGEST_EVENT = 7 * 86_400;

/** Days of the week, Monday is 1 (ISO 8601). */
export const WEEKDAYS = [1, 2, 3, 4, 5, 6, 7] as const;

export const Weekly = z.strictObject({
  days: z.array(z.number().int().min(1).max(7)).min(1).max(7),
  /** Every so many weeks, counted from the week of the first day. Weeks begin on Monday. */
  every: z.number().int().min(1).max(52).default(1),
  /** The last day it may be. */
  until: Day.optional(),
});

export const TimedEvent = z.strictObject({
  id: idOf<'Event'>(),
  name: Name,
  /** The day it is first, and the time at which it begins. */
  day: Day,
  time: TimeOfDay,
  /** How long it lasts, in seconds; without, it only begins. */
  length: z.number().int().min(1).max(LONGEST_EVENT).optional(),
  /** Without, it is once, and on the days of `also`. */
  weekly: Weekly.optional(),
  also: z.array(Day).max(MOST_DAYS).optional(),
  except: z.array(Day).max(MOST_DAYS).optional(),
  begins: Acts.default([]),
  ends: Acts.default([]),
  /** What a calendar that it came from calls it (RFC 5545, 3.8.4.7): brought in again, it takes its own place. */
  uid: z.string().min(1).max(300).optional(),
});
export type TimedEvent = z.infer<typeof TimedEvent>;

const MONTH_DAYS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

function isDay(text: string): boolean {
  const [year = 0, month = 0, day = 0] = text.split('-').map(Number);
  const leap = month === 2 && year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
  return year >= 1970 && day >= 1 && day <= (MONTH_DAYS[month - 1] ?? 0) + (leap ? 1 : 0);
}
