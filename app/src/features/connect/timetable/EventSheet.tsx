// One event: when it is, and what happens as it begins and ends.

import { MOST_DAYS, WEEKDAYS, type TimedEvent } from '@hovlix/core/gig';
import type { Show } from '@hovlix/core/show';
import { comingAfter, dayOf, weekdayOf, written } from '@hovlix/core/timetable';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Chip } from '../../../ui/Chip';
import { DayInput, TimeInput } from '../../../ui/day-inputs';
import { named, Pair, Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { Stepper } from '../../../ui/Stepper';
import { Switch } from '../../../ui/Switch';
import { ActList } from '../../gig/pedal/ActList';
import { LookChoice } from './LookChoice';
import { daysLater, dayWords, endless, endOf, isByTheClock, lengthUntil, stopping } from './model';
import { TIMETABLE, WEEKDAY_LETTERS } from './words';

type Weekly = NonNullable<TimedEvent['weekly']>;

type Props = {
  readonly show: Show;
  readonly event: TimedEvent;
  /** Seconds of local time since 1970. */
  readonly at: number;
  readonly onClose: () => void;
};

const HOUR = 3600;

export function EventSheet({ show, event, at, onClose }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  /** From what it is by then: a line that is left counts at the same moment as what is touched next. */
  const put = (change: (newest: TimedEvent) => TimedEvent) => {
    const newest = app.document.store.getState().show?.events.find(({ id }) => id === event.id);
    if (newest) app.document.make({ type: 'store-event', event: change(newest) });
  };
  const set = (change: Partial<TimedEvent>) => put((newest) => ({ ...newest, ...change }));
  const end = endOf(event);
  const later = daysLater(event);
  const remove = () => {
    app.document.make({ type: 'remove-event', event: event.id });
    say(TIMETABLE.isRemoved(event.name), { undo: app.document.takingBack() });
    onClose();
  };
  return (
    <Sheet title={event.name} onClose={onClose}>
      <Typed label={TIMETABLE.name} value={event.name} read={named} onChange={(name) => set({ name })} />
      <Pair>
        <DayInput
          label={event.weekly ? TIMETABLE.day : TIMETABLE.onDay}
          value={event.day}
          onChange={(day) => set({ day })}
        />
        <TimeInput
          label={TIMETABLE.from}
          value={event.time}
          // As with anything that is moved, it stays as long as it was.
          onChange={(time) => set({ time })}
        />
      </Pair>
      <Switch
        label={TIMETABLE.lasts}
        on={end !== undefined}
        onChange={(on) => put((newest) => (on ? stopping({ ...newest, length: HOUR }) : endless(newest)))}
      />
      {end !== undefined && (
        <TimeInput
          label={TIMETABLE.to}
          value={end}
          hint={later === 0 ? undefined : later === 1 ? TIMETABLE.nextDay : TIMETABLE.longer(later)}
          onChange={(to) => put((newest) => ({ ...newest, length: lengthUntil(newest, to) }))}
        />
      )}
      <LookChoice show={show} event={event} onChange={put} />
      <Weeks event={event} onChange={put} />
      <Days event={event} at={at} onChange={put} />
      <ActList
        show={show}
        label={TIMETABLE.whenBegins}
        acts={event.begins}
        offers={isByTheClock}
        onChange={(begins) => set({ begins: [...begins] })}
      />
      {end !== undefined && (
        <ActList
          show={show}
          label={TIMETABLE.whenEnds}
          acts={event.ends}
          offers={isByTheClock}
          onChange={(ends) => set({ ends: [...ends] })}
        />
      )}
      <Row>
        <Button kind="quiet" onPress={remove}>
          {TIMETABLE.remove}
        </Button>
      </Row>
    </Sheet>
  );
}

type PartProps = {
  readonly event: TimedEvent;
  readonly onChange: (change: (newest: TimedEvent) => TimedEvent) => void;
};

/** On which days of which weeks. */
function Weeks({ event, onChange }: PartProps) {
  const { weekly } = event;
  const put = (change: (weekly: Weekly) => Weekly) =>
    onChange((newest) => (newest.weekly ? { ...newest, weekly: change(newest.weekly) } : newest));
  const toggle = (day: number) =>
    put((newest) => {
      const days = newest.days.includes(day) ? newest.days.filter((one) => one !== day) : [...newest.days, day];
      return days.length > 0 ? { ...newest, days: days.toSorted() } : newest;
    });
  const step = (by: number) => put((newest) => ({ ...newest, every: newest.every + by }));
  const every = weekly?.every ?? 1;
  const repeat = (on: boolean) =>
    onChange(({ weekly: _, ...once }) =>
      on ? { ...once, weekly: { days: [weekdayOf(dayOf(once.day))], every: 1 } } : once,
    );
  return (
    <>
      <Switch label={TIMETABLE.weekly} on={weekly !== undefined} onChange={repeat} />
      {weekly && (
        <>
          <Row gap={4} flexWrap="wrap" role="group" aria-label={TIMETABLE.weekdays}>
            {WEEKDAYS.map((day) => (
              <Chip
                key={day}
                small
                name={WEEKDAY_LETTERS[day - 1]!}
                on={weekly.days.includes(day)}
                onPress={() => toggle(day)}
              />
            ))}
          </Row>
          <Row>
            <Stepper
              name={TIMETABLE.every}
              value={TIMETABLE.weeks(every)}
              less={TIMETABLE.lessOften}
              more={TIMETABLE.moreOften}
              onLess={every > 1 ? () => step(-1) : undefined}
              onMore={every < 52 ? () => step(1) : undefined}
            />
          </Row>
          <Switch
            label={TIMETABLE.hasLast}
            on={weekly.until !== undefined}
            onChange={(on) => put(({ until: _, ...open }) => (on ? { ...open, until: event.day } : open))}
          />
          {weekly.until !== undefined && (
            <DayInput
              label={TIMETABLE.last}
              value={weekly.until}
              onChange={(until) => put((newest) => ({ ...newest, until }))}
            />
          )}
        </>
      )}
    </>
  );
}

/** Single days: those it leaves out, and those it is on besides. */
function Days({ event, at, onChange }: PartProps & { readonly at: number }) {
  const { except = [], also = [] } = event;
  const { day: today } = written(at);
  const [next] = event.weekly || also.length > 0 ? comingAfter([event], at) : [];
  const nextDay = next && written(next.from).day;
  const words = (day: string) => dayWords(day, today);
  return (
    <>
      {nextDay !== undefined && except.length < MOST_DAYS && (
        <Row>
          <Button onPress={() => onChange((newest) => ({ ...newest, except: [...(newest.except ?? []), nextDay] }))}>
            {TIMETABLE.skip(words(nextDay))}
          </Button>
        </Row>
      )}
      <DayList
        title={TIMETABLE.skipped}
        days={except}
        words={words}
        label={TIMETABLE.takeBack}
        onRemove={(day) => onChange((newest) => ({ ...newest, except: without(newest.except, day) }))}
      />
      <DayList
        title={TIMETABLE.also}
        days={also}
        words={words}
        label={TIMETABLE.removeDay}
        onRemove={(day) => onChange((newest) => ({ ...newest, also: without(newest.also, day) }))}
      />
    </>
  );
}

const without = (days: readonly string[] | undefined, day: string) => days?.filter((one) => one !== day);

type DayListProps = {
  readonly title: string;
  readonly days: readonly string[];
  readonly words: (day: string) => string;
  readonly label: (day: string) => string;
  readonly onRemove: (day: string) => void;
};

/** A calendar may bring hundreds. */
const MOST_SHOWN = 24;

function DayList({ title, days, words, label, onRemove }: DayListProps) {
  if (days.length === 0) return null;
  const more = days.length - MOST_SHOWN;
  return (
    <Column gap={6} role="group" aria-label={title}>
      <Quiet fontWeight="600">{title}</Quiet>
      <Row gap={6} flexWrap="wrap">
        {days
          .toSorted()
          .slice(0, MOST_SHOWN)
          .map((day) => (
            <Button key={day} label={label(words(day))} onPress={() => onRemove(day)}>
              {`${words(day)} ×`}
            </Button>
          ))}
      </Row>
      {more > 0 && <Quiet>{TIMETABLE.moreDays(more)}</Quiet>}
    </Column>
  );
}
