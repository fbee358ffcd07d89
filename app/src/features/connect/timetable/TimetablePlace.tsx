// The timetable of the show: its events in the order in which they come, and calendars in and out.

import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { View } from '@tamagui/core';
import { TimedEvent } from '@hovlix/core/gig';
import { wordsFor } from '@hovlix/core/problem';
import { MOST, type Show } from '@hovlix/core/show';
import { DAY, dayOf, secondsOf, written } from '@hovlix/core/timetable';
import { statusQuery } from '../../../data/queries';
import { calendarFormat } from '../../../host/files/formats';
import { saveFile } from '../../../host/files/save-file';
import { freshId } from '../../../host/fresh-id';
import { useHovlix, useLink, useMay, useShow } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { localSeconds } from '../../../host/wall-clock';
import { Card } from '../../../ui/card';
import { FileButton } from '../../../ui/FileButton';
import { LookPicture } from '../../../ui/LookPicture';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { PageHead } from '../PageHead';
import { EventSheet } from './EventSheet';
import { doesWords, lookOf, rowsOf, whenWords, type Row as RowOf } from './model';
import { Follow, Now } from './TimetableCard';
import { TIMETABLE } from './words';

export function TimetablePlace() {
  const app = useHovlix();
  const show = useShow((one) => one);
  const may = useMay('operator');
  const conductor = useLink((link) => link.conductor);
  const { data: status } = useQuery(statusQuery(conductor === 'server'));
  const [open, setOpen] = useState<TimedEvent['id'] | null>(null);
  const [here] = useState(() => localSeconds(Date.now() / 1000));
  if (!show) return null;
  const report = status?.timetable;
  // The clock that counts is that of the computer it runs on.
  const at = report ? dayOf(report.now.day) * DAY + secondsOf(report.now.time) : here;
  const shown = show.events.find(({ id }) => id === open);
  const add = () => {
    const event = freshEvent(show, at);
    app.document.make({ type: 'store-event', event });
    setOpen(event.id);
  };
  return (
    <>
      <ScrollArea>
        <PageHead title={TIMETABLE.title} />
        <Column paddingHorizontal={12} paddingBottom={24} gap={12} maxWidth={760}>
          <Card title={TIMETABLE.now} action={status && <Follow />}>
            {report ? (
              <Now report={report} />
            ) : (
              <Quiet>{status ? TIMETABLE.notFollowed : TIMETABLE.needsComputer}</Quiet>
            )}
          </Card>
          <Card
            title={TIMETABLE.events}
            action={may && show.events.length < MOST.events && <Button onPress={add}>{TIMETABLE.add}</Button>}
          >
            {show.events.length === 0 && <Quiet>{TIMETABLE.empty}</Quiet>}
            <Column role={show.events.length > 0 ? 'list' : 'group'} aria-label={TIMETABLE.events}>
              {rowsOf(show.events, at).map((row) => (
                <EventRow key={row.event.id} show={show} row={row} onOpen={may ? setOpen : undefined} />
              ))}
            </Column>
            <Calendars show={show} may={may} />
          </Card>
        </Column>
      </ScrollArea>
      {shown && may && <EventSheet key={shown.id} show={show} event={shown} at={at} onClose={() => setOpen(null)} />}
    </>
  );
}

const HOUR = 3600;

/** Begins at the next full hour, for an hour. */
function freshEvent({ events }: Show, at: number): TimedEvent {
  const { day, time } = written(Math.ceil((at + 1) / HOUR) * HOUR);
  return TimedEvent.parse({ id: freshId(), name: TIMETABLE.fresh(events.length), day, time, length: HOUR });
}

type EventRowProps = {
  readonly show: Show;
  readonly row: RowOf;
  readonly onOpen: ((id: TimedEvent['id']) => void) | undefined;
};

const PICTURE = 72;

function EventRow({ show, row: { event, next, state }, onOpen }: EventRowProps) {
  const look = lookOf(event);
  const does = doesWords(show, event);
  return (
    <div role="listitem">
      <View
        width="100%"
        {...(onOpen ? { render: 'button', onPress: () => onOpen(event.id), cursor: 'pointer' } : {})}
        aria-label={onOpen ? TIMETABLE.change(event.name) : undefined}
        flexDirection="row"
        alignItems="center"
        gap={12}
        minHeight={PICTURE}
        paddingVertical={8}
        paddingHorizontal={0}
        borderWidth={0}
        borderBottomWidth={1}
        borderColor="$line"
        backgroundColor="transparent"
      >
        <View
          width={PICTURE}
          height={56}
          borderRadius={10}
          overflow="hidden"
          backgroundColor="$well"
          flexShrink={0}
          opacity={state === 'over' ? 0.4 : 1}
        >
          {look !== undefined && <LookPicture look={look} height={56} />}
        </View>
        <Column flex={1} minWidth={0} alignItems="flex-start">
          <Words fontWeight="600" numberOfLines={1}>
            {event.name}
          </Words>
          <Words fontSize={14} lineHeight={18} textAlign="left">
            {whenWords(event)}
          </Words>
          <Quiet textAlign="left" numberOfLines={2} color={does === TIMETABLE.doesNothing ? '$warn' : '$quiet'}>
            {does}
          </Quiet>
          <Quiet color={state === 'on' ? '$live' : '$quiet'}>{next}</Quiet>
        </Column>
      </View>
    </div>
  );
}

function Calendars({ show, may }: { readonly show: Show; readonly may: boolean }) {
  const { document } = useHovlix();
  const say = useSession((session) => session.say);
  const bring = async (file: File) => {
    const { eventsFrom, readCalendar } = await calendarFormat();
    const read = readCalendar(await file.text(), file.name, localSeconds);
    if (!read.ok) return say(wordsFor(read.problem), { tone: 'bad' });
    const events = eventsFrom(show, read.value.events, freshId);
    const fresh = events.filter(({ id }) => show.events.every((one) => one.id !== id));
    if (show.events.length + fresh.length > MOST.events) return say(TIMETABLE.tooMany(MOST.events), { tone: 'bad' });
    const remarks = read.value.remarks.join(' ');
    if (events.length === 0) return say(remarks, { tone: 'bad' });
    document.together(events.map((event) => ({ type: 'store-event', event })));
    say(`${TIMETABLE.brought(file.name, events.length)} ${remarks}`.trim(), { undo: document.takingBack() });
  };
  const save = async () => {
    const { writeCalendar } = await calendarFormat();
    const stamp = new Date().toISOString().replace(/[-:]|\.\d+/g, '');
    const text = writeCalendar(show, stamp, (event) => doesWords(show, event));
    saveFile(`${show.name}, timetable.ics`, text, 'text/calendar');
  };
  return (
    <Row gap={8} flexWrap="wrap">
      {may && (
        <FileButton
          label={TIMETABLE.chooseCalendar}
          accept=".ics,text/calendar"
          onFiles={(files) => files[0] && void bring(files[0])}
        >
          {TIMETABLE.bring}
        </FileButton>
      )}
      {show.events.length > 0 && <Button onPress={() => void save()}>{TIMETABLE.save}</Button>}
    </Row>
  );
}
