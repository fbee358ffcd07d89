// The timetable in Connect: whether this computer follows it, what is on by it, and what comes next.

import { NO_TIMETABLE, type Status, type TimetableReport } from '@hovlix/core/connect';
import { useConnections, useHovlix } from '../../../host/hovlix';
import { Card, State } from '../../../ui/card';
import { ButtonLink } from '../../../ui/links';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { dayWords, timeText } from './model';
import { TIMETABLE } from './words';

export function TimetableCard({ status }: { readonly status: Status }) {
  return (
    <Card title={TIMETABLE.title} action={<Follow />}>
      {status.timetable ? <Now report={status.timetable} /> : <Quiet>{TIMETABLE.off}</Quiet>}
      <Row>
        <ButtonLink href="/connect/timetable" kind="plain">
          {TIMETABLE.open}
        </ButtonLink>
      </Row>
    </Card>
  );
}

export function Follow() {
  const app = useHovlix();
  const { on } = useConnections((state) => state.connections?.timetable) ?? NO_TIMETABLE;
  return (
    <Button
      label={TIMETABLE.follow}
      pressed={on}
      onPress={() => app.connections.make({ type: 'set-timetable', timetable: { on: !on } })}
    >
      {on ? TIMETABLE.following : TIMETABLE.followShort}
    </Button>
  );
}

/** What is on by the clock, what comes next, and what it did last. */
export function Now({ report: { now, on, next, last, missed } }: { readonly report: TimetableReport }) {
  const ahead = next
    ? `${next.name} ${TIMETABLE[next.what]} ${dayWords(next.day, now.day)} at ${timeText(next.time)}`
    : TIMETABLE.nothingNext;
  const isOn = on.length > 0;
  return (
    <Column gap={8} role="status" testID="timetable-now">
      <State colour={isOn ? '$live' : '$faint'} word={isOn ? TIMETABLE.on(on) : ahead}>
        {isOn && <Quiet>{ahead}</Quiet>}
        {last && (
          <Quiet>
            {TIMETABLE.didLast(
              last.name,
              last.what === 'begins' ? TIMETABLE.began : TIMETABLE.ended,
              timeText(last.time),
              last.did,
            )}
          </Quiet>
        )}
      </State>
      {missed.length > 0 && <Quiet color="$warn">{TIMETABLE.missed(missed)}</Quiet>}
    </Column>
  );
}
