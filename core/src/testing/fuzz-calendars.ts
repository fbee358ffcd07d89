// Calendars to damage, and what becomes of one that is taken.

import type { Show } from '../show';
import { nextDue } from '../timetable';
import { eventsFrom, readCalendar, writeCalendar } from '../timetable/calendar-file';
import type { Outcome } from './fuzz';

export const CALENDARS = [
  [
    'DTSTART:20261204T180000Z',
    'DTEND:20261204T200000Z',
    'RRULE:FREQ=WEEKLY;INTERVAL=2;BYDAY=FR,SA;UNTIL=20270301T000000Z',
  ],
  ['DTSTART:20261204T180000', 'DURATION:PT2H', 'RRULE:FREQ=MONTHLY;BYDAY=-1FR;COUNT=12', 'EXDATE:20270129T180000'],
  [
    'DTSTART:20261204T180000',
    'RRULE:FREQ=DAILY',
    'END:VEVENT',
    'BEGIN:VEVENT',
    'UID:a',
    'RECURRENCE-ID:20261205T180000',
    'DTSTART:20261205T190000',
  ],
  ['DTSTART;VALUE=DATE:20261204', 'RDATE;VALUE=DATE:20261211,20270101'],
].map((lines) =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'BEGIN:VEVENT',
    'UID:a',
    'SUMMARY:Red',
    ...lines,
    'END:VEVENT',
    'END:VCALENDAR',
  ].join('\r\n'),
);

/** What is taken can be looked up and written again. */
export const calendarTaken =
  (show: Show) =>
  (bytes: Uint8Array): Outcome => {
    const read = readCalendar(new TextDecoder().decode(bytes), 'x.ics', (utc) => utc);
    if (!read.ok) return 'refused';
    const events = [...eventsFrom(show, read.value.events, () => 'fresh')];
    nextDue(events, 0);
    writeCalendar({ ...show, events }, '20261204T120000Z', () => 'words');
    return 'taken';
  };
