// One channel moved by hand while the lamp answers: a slider, and its ranges as quick choices. Acts that hurt are guarded.

import { useEffect, useId, useRef, useState } from 'react';
import { attributeOf, bytesOfValue, type Channel, type Patched, type Range } from '@hovlix/core/rig';
import { useHovlix, useLive } from '../../../host/hovlix';
import { Button, Column, Figures, Row, Words } from '../../../ui/pieces';
import { Hold } from '../../../ui/Hold';

type Props = {
  readonly lamp: Patched;
  readonly channel: Channel;
  /** The lamp's bytes as they go out now, from its address on; none while that is not known. */
  readonly bytes: readonly number[] | null;
};

const HURTS: readonly Range['does'][] = ['reset', 'lamp on', 'lamp off'];
/** Where a type does not say how long an act must be held. */
const USUAL_HOLD = 3;

export function LiveChannel({ lamp, channel, bytes: sent }: Props) {
  const { conducting } = useHovlix();
  const id = useId();
  const held = useLive((live) => live.held);
  const [acting, setActing] = useState<string | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const { fixture } = lamp;
  const place = fixture.address + channel.at[0]! - 1;
  const name = channel.name ?? attributeOf(channel.attribute).name;
  const now = held.find((one) => one.universe === fixture.universe && one.address === place)?.value;
  const value = now ?? sent?.[channel.at[0]! - 1] ?? Math.round((channel.home ?? 0) * 255);
  const send = (dmx: number) => {
    const bytes = bytesOfValue(dmx / 255, channel.at.length);
    const channels = channel.at.flatMap((at, i) => {
      const address = fixture.address + at - 1;
      return address > 512 ? [] : [{ universe: fixture.universe as number, address, value: bytes[i]! }];
    });
    if (channels.length > 0) conducting.act({ type: 'hold-channels', channels });
  };
  const free = () => {
    for (const at of channel.at)
      if (fixture.address + at - 1 <= 512)
        conducting.act({ type: 'free-channels', universe: fixture.universe, from: fixture.address + at - 1, count: 1 });
  };
  const act = (range: Range) => {
    const seconds = range.hold ?? USUAL_HOLD;
    setActing(`${words(range)}: sent for ${seconds} s`);
    send(middle(range));
    timer.current = setTimeout(() => {
      free();
      setActing(null);
    }, seconds * 1000);
  };
  // A channel left in the middle of an act is let go, never left there.
  const leave = useRef(free);
  useEffect(() => {
    leave.current = free;
  });
  useEffect(
    () => () => {
      if (timer.current === undefined) return;
      clearTimeout(timer.current);
      leave.current();
    },
    [],
  );
  return (
    <Column gap={4} paddingVertical={6} borderBottomWidth={1} borderColor="$line">
      <Row justifyContent="space-between" gap={8} minHeight={28}>
        <label htmlFor={id}>
          <Words>
            {channel.at.join('+')} {name}
          </Words>
        </label>
        <Figures color={now === undefined ? '$quiet' : '$warn'}>{value}</Figures>
      </Row>
      <input
        id={id}
        type="range"
        min={0}
        max={255}
        value={value}
        onChange={(event) => send(Number(event.target.value))}
        style={{ width: '100%', height: 44, margin: 0, accentColor: '#FF7A59' }}
      />
      {channel.ranges.length > 0 && (
        <Row gap={6} flexWrap="wrap">
          {channel.ranges.map((range) =>
            HURTS.includes(range.does) ? (
              <Hold key={`${range.from}`} onHeld={() => act(range)}>
                {`${words(range)}, hold`}
              </Hold>
            ) : (
              <Button
                key={`${range.from}`}
                pressed={value >= range.from && value <= range.to}
                onPress={() => send(middle(range))}
              >
                {words(range)}
              </Button>
            ),
          )}
        </Row>
      )}
      {acting && <Words color="$warn">{acting}</Words>}
    </Column>
  );
}

const middle = ({ from, to }: Range) => Math.round((from + to) / 2);

export function words(range: Range): string {
  if (range.name) return range.name;
  if (range.does === 'slot') return `Slot ${range.slot ?? 0}`;
  return range.does.charAt(0).toUpperCase() + range.does.slice(1);
}
