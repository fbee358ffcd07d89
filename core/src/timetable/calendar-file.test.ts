// Calendars in and out.

import fc from 'fast-check';
import { TimedEvent } from '../gig';
import { wordsFor } from '../problem';
import { testShow } from '../testing/show';
import { eventsFrom, readCalendar, writeCalendar, type CalendarEvent } from './calendar-file';
import { comingAfter, DAY, dayText, written } from '.';

/** One hour before UTC: as in winter in Oslo. */
const local = (utc: number) => utc + 3600;
const calendar = (...lines: readonly string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR', ''].join('\r\n');
const vevent = (...lines: readonly string[]) => ['BEGIN:VEVENT', 'UID:u', 'SUMMARY:Doors', ...lines, 'END:VEVENT'];
function read(text: string) {
  const result = readCalendar(text, 'house.ics', local);
  if (!result.ok) throw new Error(wordsFor(result.problem));
  return result.value;
}
const days = (event: CalendarEvent, most = 5) => {
  const found: string[] = [];
  const whole = TimedEvent.parse({ ...event, id: 'e' });
  for (let [next] = comingAfter([whole], 0); next && found.length < most; [next] = comingAfter([whole], next.from))
    found.push(`${written(next.from).day} ${written(next.from).time}`);
  return found;
};
const only = (...lines: readonly string[]) => read(calendar(...vevent(...lines))).events[0]!;

const OSLO = [
  'BEGIN:VTIMEZONE',
  'TZID:Europe/Oslo',
  'BEGIN:STANDARD',
  'DTSTART:19701025T030000',
  'RRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU',
  'TZOFFSETFROM:+0200',
  'TZOFFSETTO:+0100',
  'END:STANDARD',
  'BEGIN:DAYLIGHT',
  'DTSTART:19700329T020000',
  'RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU',
  'TZOFFSETFROM:+0100',
  'TZOFFSETTO:+0200',
  'END:DAYLIGHT',
  'END:VTIMEZONE',
];

test('an event with its length, by end, by duration, of a whole day, and without', () => {
  expect(only('DTSTART:20261204T180000', 'DTEND:20261204T203000')).toMatchObject({
    name: 'Doors',
    day: '2026-12-04',
    time: '18:00:00',
    length: 9000,
  });
  expect(only('DTSTART:20261204T180000', 'DURATION:PT90M').length).toBe(5400);
  expect(only('DTSTART;VALUE=DATE:20261204')).toMatchObject({ time: '00:00:00', length: DAY });
  expect(only('DTSTART:20261204T180000').length).toBeUndefined();
});

test('times of UTC and of a zone are brought to the clock on the wall', () => {
  expect(days(only('DTSTART:20261204T233000Z'))).toEqual(['2026-12-05 00:30:00']);
  const [there] = read(
    calendar(...OSLO, ...vevent('DTSTART;TZID=Europe/Oslo:20261204T180000', 'DTEND;TZID=Europe/Oslo:20261204T190000')),
  ).events;
  expect(days(there!)).toEqual(['2026-12-04 18:00:00']);
  expect(there!.length).toBe(3600);
  // Friday by UTC is Saturday here.
  expect(days(only('DTSTART:20261204T233000Z', 'RRULE:FREQ=WEEKLY;BYDAY=FR'), 2)).toEqual([
    '2026-12-05 00:30:00',
    '2026-12-12 00:30:00',
  ]);
});

test('a series ends at a moment, wherever that is said; over the night in which clocks are set it is as long as ever', () => {
  // 17:00 of UTC is 18:00 here.
  const untilSharp = only('DTSTART:20261204T180000', 'RRULE:FREQ=DAILY;UNTIL=20261206T170000Z');
  expect(days(untilSharp).at(-1)).toBe('2026-12-06 18:00:00');
  const untilBefore = only('DTSTART:20261204T180000', 'RRULE:FREQ=DAILY;UNTIL=20261206T165959Z');
  expect(days(untilBefore).at(-1)).toBe('2026-12-05 18:00:00');
  const monthly = only('DTSTART:20261204T180000', 'RRULE:FREQ=MONTHLY;UNTIL=20270204T165959Z');
  expect(days(monthly).at(-1)).toBe('2027-01-04 18:00:00');
  const times = ['DTSTART;TZID=Europe/Oslo:20261024T220000', 'DTEND;TZID=Europe/Oslo:20261025T040000'];
  const summer = (utc: number) => utc + (utc < Date.parse('2026-10-25T01:00:00Z') / 1000 ? 7200 : 3600);
  const result = readCalendar(calendar(...OSLO, ...vevent(...times)), 'house.ics', summer);
  expect(result.ok && result.value.events[0]!.length).toBe(6 * 3600);
});

test('days besides that begin at another time are said', () => {
  const { events, remarks } = read(calendar(...vevent('DTSTART:20261204T180000', 'RDATE:20261206T190000')));
  expect(days(events[0]!)).toEqual(['2026-12-04 18:00:00', '2026-12-06 18:00:00']);
  expect(remarks).toEqual(['“Doors”: on its days besides it begins at 18:00, too.']);
});

test.each<[string, readonly string[]]>([
  ['FREQ=WEEKLY;INTERVAL=60', ['2026-12-04', '2028-01-28']],
  ['FREQ=WEEKLY', ['2026-12-04', '2026-12-11', '2026-12-18']],
  ['FREQ=WEEKLY;INTERVAL=2;BYDAY=FR,SU', ['2026-12-04', '2026-12-06', '2026-12-18']],
  // Weeks that begin on Sunday: that Sunday belongs to the next one.
  ['FREQ=WEEKLY;INTERVAL=2;WKST=SU;BYDAY=FR,SU', ['2026-12-04', '2026-12-13', '2026-12-18']],
  ['FREQ=DAILY', ['2026-12-04', '2026-12-05', '2026-12-06']],
  ['FREQ=DAILY;COUNT=2', ['2026-12-04', '2026-12-05']],
  ['FREQ=DAILY;INTERVAL=3', ['2026-12-04', '2026-12-07', '2026-12-10']],
  ['FREQ=WEEKLY;BYDAY=FR;UNTIL=20261211T235959', ['2026-12-04', '2026-12-11']],
  ['FREQ=MONTHLY;BYDAY=1FR', ['2026-12-04', '2027-01-01', '2027-02-05']],
  ['FREQ=MONTHLY;BYMONTHDAY=-1', ['2026-12-04', '2026-12-31', '2027-01-31']],
  ['FREQ=YEARLY;COUNT=2', ['2026-12-04', '2027-12-04']],
  // Never.
  ['FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30', ['2026-12-04']],
])('%s', (rule, expected) => {
  const found = days(only('DTSTART:20261204T180000', `RRULE:${rule}`), 3);
  expect(found).toEqual(expected.map((day) => `${day} 18:00:00`));
});

test('one that was taken out of a series, one that was added, and one that was moved', () => {
  const series = vevent(
    'DTSTART:20261204T180000',
    'RRULE:FREQ=WEEKLY',
    'EXDATE:20261211T180000',
    'RDATE:20261213T180000',
  );
  const moved = ['BEGIN:VEVENT', 'UID:u', 'RECURRENCE-ID:20261218T180000', 'SUMMARY:Doors', 'DTSTART:20261219T190000'];
  const { events } = read(calendar(...series, ...moved, 'END:VEVENT'));
  expect(events.map((one) => days(one, 3))).toEqual([
    ['2026-12-04 18:00:00', '2026-12-13 18:00:00', '2026-12-25 18:00:00'],
    ['2026-12-19 19:00:00'],
  ]);
});

test.each([
  ['', 'house.ics” is empty'],
  ['hello', 'does not begin with BEGIN:VCALENDAR'],
  [calendar(), 'there is no event in it'],
  ['BEGIN:VCALENDAR\r\nrubbish\r\nEND:VCALENDAR', 'rubbish'],
])('%j is refused in words', (text, words) => {
  const result = readCalendar(text, 'house.ics', local);
  expect(result.ok ? '' : wordsFor(result.problem)).toContain(words);
});

test.each([
  [['DTSTART:foo'], 'it has no time at which it begins'],
  [['DTSTART:20261204T180000', 'DTEND:20270104T180000'], 'it lasts longer than a week'],
  [['DTSTART:20261204T180000', 'RRULE:FREQ=HOURLY'], 'it comes more often than once a day'],
])('an event with %j is left out and named; the others are taken', (lines, why) => {
  const { events, remarks } = read(calendar(...vevent(...lines), ...vevent('UID:v', 'DTSTART:20261204T180000')));
  expect(events).toHaveLength(1);
  expect(remarks).toEqual([`“Doors” was left out: ${why}.`]);
});

test('one that was moved from a time that cannot be read is an event like others', () => {
  const moved = ['BEGIN:VEVENT', 'UID:v', 'SUMMARY:Bell', 'RECURRENCE-ID:foo', 'DTSTART:20261219T190000', 'END:VEVENT'];
  const { events } = read(calendar(...vevent('DTSTART:20261204T180000', 'RRULE:FREQ=WEEKLY'), ...moved));
  expect(events.map(({ name, except }) => [name, except])).toEqual([
    ['Doors', undefined],
    ['Bell', undefined],
  ]);
});

test('damaged calendars are refused or read, and never crash', () => {
  const whole = calendar(...OSLO, ...vevent('DTSTART;TZID=Europe/Oslo:20261204T180000', 'RRULE:FREQ=WEEKLY;BYDAY=FR'));
  fc.assert(
    fc.property(fc.nat(whole.length), fc.nat(12), fc.string({ maxLength: 6 }), (from, cut, put) => {
      const result = readCalendar(whole.slice(0, from) + put + whole.slice(from + cut), 'house.ics', local);
      for (const event of result.ok ? result.value.events : [])
        expect(TimedEvent.safeParse({ ...event, id: 'e' }).success).toBe(true);
    }),
    { numRuns: 400 },
  );
});

describe('in a show', () => {
  const show = testShow();
  const fresh = () => 'fresh';
  const look = show.looks[0]!;

  test('an event that is named like a look turns it on and off; like a song, it plays it', () => {
    const named = (name: string, ...lines: readonly string[]) =>
      read(
        calendar('BEGIN:VEVENT', `UID:${name}`, `SUMMARY:${name}`, 'DTSTART:20261204T180000', ...lines, 'END:VEVENT'),
      ).events;
    const [on] = eventsFrom(show, named(look.name.toUpperCase(), 'DURATION:PT1H'), fresh);
    expect(on).toMatchObject({
      begins: [{ act: 'look', look: look.id, press: 'start' }],
      ends: [{ act: 'look', look: look.id, press: 'stop' }],
    });
    const [song] = eventsFrom(show, named(show.songs[0]!.title), fresh);
    expect(song).toMatchObject({ begins: [{ act: 'play', song: show.songs[0]!.id }], ends: [] });
    expect(eventsFrom(show, named('Somebody else'), fresh)[0]).toMatchObject({ begins: [], ends: [] });
  });

  test('written, moved in a calendar and read again, an event keeps what it does', () => {
    const dates = fc.integer({ min: 20_000, max: 21_000 }).map(dayText);
    const events = fc.record({
      day: dates,
      length: fc.option(fc.integer({ min: 1, max: 7 * DAY }), { nil: undefined }),
      weekly: fc.option(
        fc.record({
          days: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }),
          every: fc.integer({ min: 1, max: 9 }),
        }),
        { nil: undefined },
      ),
      also: fc.uniqueArray(dates, { maxLength: 3 }),
      except: fc.uniqueArray(dates, { maxLength: 3 }),
    });
    fc.assert(
      fc.property(events, (of) => {
        const one = TimedEvent.parse({
          ...of,
          id: 'mine',
          name: 'Doors; “open”, \\ and so on',
          time: '18:30:05',
          begins: [{ act: 'tap' }],
        });
        const text = writeCalendar({ name: 'House', events: [one] }, '20261204T120000Z', () => 'Tap\nand more');
        const [back] = eventsFrom({ ...show, events: [one] }, read(text).events, fresh);
        expect(back).toMatchObject({ id: 'mine', name: one.name, begins: one.begins });
        expect(back!.length).toBe(one.length);
        const { begins: _, ends: __, ...bare } = back!;
        expect(days({ ...bare, uid: 'u' }, 8)).toEqual(days({ ...one, uid: 'u' }, 8));
      }),
      { numRuns: 100 },
    );
  });
});
