// When events are, and what is due: by the calendar, and whatever the clock and the computer do meanwhile.

import fc from 'fast-check';
import { RRule } from 'rrule';
import { TimedEvent } from '../gig';
import { comingAfter, DAY, dayOf, dayText, dueBetween, LATE, nextDue, runningAt, weekdayOf, written } from '.';

const event = (of: object) => TimedEvent.parse({ id: 'e', name: 'Doors', day: '2026-12-04', time: '18:00:00', ...of });
const at = (text: string) => Date.parse(`${text}Z`) / 1000;
const text = (wall: number) => `${written(wall).day}T${written(wall).time}`;
const doings = ({ due }: ReturnType<typeof dueBetween>) =>
  due.map(({ event: { name }, what, at: when }) => `${name} ${what} ${text(when)}`);

test('days are those of the calendar, with their weekdays', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 60_000 }), (day) => {
      const date = new Date(day * DAY * 1000);
      expect(dayText(day)).toBe(date.toISOString().slice(0, 10));
      expect(dayOf(dayText(day))).toBe(day);
      expect(weekdayOf(day)).toBe(date.getUTCDay() || 7);
    }),
  );
});

test.each(['2026-02-29', '2026-13-01', '2026-04-31', '1969-12-31', 'tomorrow'])('%s is no day', (day) => {
  expect(TimedEvent.safeParse({ id: 'e', name: 'E', day, time: '18:00:00' }).success).toBe(false);
});

test('weekly events are on the days that RFC 5545 has for them', () => {
  const days = fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 });
  fc.assert(
    fc.property(days, fc.integer({ min: 1, max: 6 }), fc.integer({ min: 20_000, max: 20_400 }), (on, every, first) => {
      const weekly = event({ day: dayText(first), weekly: { days: on, every } });
      const rule = new RRule({
        freq: RRule.WEEKLY,
        interval: every,
        byweekday: on.map((day) => day - 1),
        wkst: RRule.MO,
        dtstart: new Date((first * DAY + 18 * 3600) * 1000),
        count: 6,
      });
      let from = first * DAY;
      for (const date of rule.all()) {
        expect(comingAfter([weekly], from)[0]?.from).toBe(date.getTime() / 1000);
        from = date.getTime() / 1000;
      }
    }),
    { numRuns: 60 },
  );
});

test('an event that was taken off, or added, or is over', () => {
  const friday = event({
    weekly: { days: [5], until: '2026-12-25' },
    except: ['2026-12-11'],
    also: ['2026-12-31'],
  });
  const days: string[] = [];
  for (let [next] = comingAfter([friday], 0); next; [next] = comingAfter([friday], next.from))
    days.push(written(next.from).day);
  expect(days).toEqual(['2026-12-04', '2026-12-18', '2026-12-25', '2026-12-31']);
  expect(nextDue([friday], at('2027-01-01T00:00:00'))).toBeUndefined();
});

describe('what is due', () => {
  const foyer = event({ name: 'Foyer', length: 2 * 3600 });
  const house = event({ id: 'h', name: 'House', time: '20:00:00', length: 4 * 3600 + 1800 });
  const bell = event({ id: 'b', name: 'Bell', time: '19:00:00' });
  const evening = [house, bell, foyer];

  test('each is done once and in order, however often the clock is looked at; what ends comes before what begins', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: LATE }), { minLength: 500, maxLength: 900 }), (steps) => {
        let last = at('2026-12-04T17:50:00');
        const done: string[] = [];
        for (const step of [...steps, ...Array.from({ length: 500 }, () => LATE)]) {
          done.push(...doings(dueBetween(evening, last, last + step)));
          last += step;
        }
        expect(done).toEqual([
          'Foyer begins 2026-12-04T18:00:00',
          'Bell begins 2026-12-04T19:00:00',
          'Foyer ends 2026-12-04T20:00:00',
          'House begins 2026-12-04T20:00:00',
          'House ends 2026-12-05T00:30:00',
        ]);
      }),
      { numRuns: 20 },
    );
  });

  test('whoever comes late takes up what is still on, and does not ring a bell of hours ago', () => {
    const { due, missed } = dueBetween(evening, at('2026-12-04T03:00:00'), at('2026-12-04T21:00:00'));
    expect(doings({ due, missed })).toEqual(['House begins 2026-12-04T20:00:00']);
    expect(missed.map((one) => one.event.name).sort()).toEqual(['Bell', 'Foyer']);
  });

  test('what was on before a power cut and is over by now ends; a week away is no more than a night', () => {
    const cut = at('2026-12-04T19:30:00');
    expect(doings(dueBetween(evening, cut, at('2026-12-04T20:30:00')))).toEqual([
      'Foyer ends 2026-12-04T20:00:00',
      'House begins 2026-12-04T20:00:00',
    ]);
    expect(doings(dueBetween(evening, at('2019-01-01T00:00:00'), at('2026-12-04T20:30:00')))).toEqual([
      'House begins 2026-12-04T20:00:00',
    ]);
  });

  test('a clock that is set back does nothing again', () => {
    expect(dueBetween(evening, at('2026-12-04T20:00:30'), at('2026-12-04T19:00:30'))).toEqual({ due: [], missed: [] });
  });

  test('what is on past midnight is on, and its end is what comes next', () => {
    const late = at('2026-12-05T00:10:00');
    expect(runningAt(evening, late).map((one) => one.event.name)).toEqual(['House']);
    expect(nextDue(evening, late)).toMatchObject({
      what: 'ends',
      at: at('2026-12-05T00:30:00'),
      event: { name: 'House' },
    });
  });
});
