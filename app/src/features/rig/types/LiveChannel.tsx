// One channel moved by hand while the lamp answers: a slider, and its ranges as quick choices. Acts that hurt are guarded.

import { useId } from 'react';
import { sentFor, USUAL_ACT_SECONDS } from '@hovlix/core/live';
import { bytesOfValue, nameOfChannel, type Channel, type Patched, type Range } from '@hovlix/core/rig';
import { seconds } from '@hovlix/core/units';
import { useHovlix, useLive } from '../../../host/hovlix';
import { Button, Column, Figures, Row, Words } from '../../../ui/pieces';
import { Hold } from '../../../ui/Hold';
import { Range as Fader } from '../../../ui/Range';
import { WORDS } from './words';

type Props = {
  readonly lamp: Patched;
  readonly channel: Channel;
  /** The lamp's bytes as they go out now, from its address on; none while that is not known. */
  readonly bytes: readonly number[] | null;
};

const HURTS: readonly Range['does'][] = ['reset', 'lamp on', 'lamp off'];

export function LiveChannel({ lamp, channel, bytes: sent }: Props) {
  const { conducting } = useHovlix();
  const id = useId();
  const held = useLive((live) => live.held);
  const { fixture } = lamp;
  const place = fixture.address + channel.at[0]! - 1;
  const name = nameOfChannel(channel);
  const inHand = held.find((one) => one.universe === fixture.universe && one.address === place);
  const now = inHand?.value;
  const value = now ?? sent?.[channel.at[0]! - 1] ?? Math.round((channel.home ?? 0) * 255);
  /** @param length in seconds, after which it is let go by itself. */
  const send = (dmx: number, length?: number) => {
    const bytes = bytesOfValue(dmx / 255, channel.at.length);
    const channels = channel.at.flatMap((at, i) => {
      const address = fixture.address + at - 1;
      return address > 512 ? [] : [{ universe: fixture.universe as number, address, value: bytes[i]! }];
    });
    if (channels.length > 0)
      conducting.act({ type: 'hold-channels', channels, ...(length === undefined ? {} : { length: seconds(length) }) });
  };
  const act = (range: Range) => send(sentFor(range), range.hold ?? USUAL_ACT_SECONDS);
  const acting =
    inHand?.until === undefined
      ? undefined
      : channel.ranges.find((range) => HURTS.includes(range.does) && value >= range.from && value <= range.to);
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
      <Fader id={id} most={255} value={value} onChange={send} />
      {channel.ranges.length > 0 && (
        <Row gap={6} flexWrap="wrap">
          {channel.ranges.map((range) =>
            HURTS.includes(range.does) ? (
              <Hold key={`${range.from}`} onHeld={() => act(range)}>
                {WORDS.hold(words(range))}
              </Hold>
            ) : (
              <Button
                key={`${range.from}`}
                pressed={value >= range.from && value <= range.to}
                onPress={() => send(sentFor(range))}
              >
                {words(range)}
              </Button>
            ),
          )}
        </Row>
      )}
      {acting && <Words color="$warn">{WORDS.sentForS(words(acting), acting.hold ?? USUAL_ACT_SECONDS)}</Words>}
    </Column>
  );
}

export function words(range: Range): string {
  if (range.name) return range.name;
  if (range.does === 'slot') return WORDS.slotNamed(range.slot ?? 0);
  return range.does.charAt(0).toUpperCase() + range.does.slice(1);
}
