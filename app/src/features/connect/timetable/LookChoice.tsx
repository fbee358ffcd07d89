// The looks of a show as pictures in a row: touched, one comes on with the event and goes off at its end.

import { View } from '@tamagui/core';
import type { TimedEvent } from '@hovlix/core/gig';
import type { Show } from '@hovlix/core/show';
import { LookPicture } from '../../../ui/LookPicture';
import { Column, Quiet, Row, Words } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { startsLook, withLook, withoutLook } from './model';
import { TIMETABLE } from './words';

type Props = {
  readonly show: Show;
  readonly event: TimedEvent;
  readonly onChange: (change: (newest: TimedEvent) => TimedEvent) => void;
};

/** More are found by typing, in the list of actions. */
const MOST = 24;

export function LookChoice({ show, event, onChange }: Props) {
  const all = [...show.looks, ...show.chases];
  const shown = all.filter(({ id }, i) => i < MOST || startsLook(event, id));
  if (shown.length === 0) return <Quiet>{TIMETABLE.noLooks}</Quiet>;
  return (
    <Column gap={6}>
      <Quiet fontWeight="600">{TIMETABLE.light}</Quiet>
      <ScrollArea sideways>
        <Row gap={8} role="group" aria-label={TIMETABLE.light} paddingBottom={4}>
          {shown.map(({ id, name }) => {
            const on = startsLook(event, id);
            return (
              <View
                key={id}
                render="button"
                aria-pressed={on}
                aria-label={name}
                onPress={() => onChange((newest) => (on ? withoutLook : withLook)(newest, id))}
                width={112}
                padding={0}
                borderWidth={2}
                borderColor={on ? '$doing' : 'transparent'}
                borderRadius={12}
                overflow="hidden"
                backgroundColor="$well"
                cursor="pointer"
                flexShrink={0}
              >
                <LookPicture look={id} height={64} />
                <Words fontSize={13} lineHeight={18} fontWeight="600" numberOfLines={1} padding={6}>
                  {name}
                </Words>
              </View>
            );
          })}
        </Row>
      </ScrollArea>
    </Column>
  );
}
