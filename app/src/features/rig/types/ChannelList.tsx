// The channels of a mode in the user's order: added anywhere, dragged, paired, flagged many at once.

import { useState } from 'react';
import { View } from '@tamagui/core';
import {
  attributeOf,
  modeFaults,
  nameOfChannel,
  packedPlaces,
  paired,
  patchedFixtures,
  snaps,
  unpaired,
  withChannel,
  withFlags,
  type Channel,
  type Mode,
  type Profile,
} from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import { useSession } from '../../../host/session';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { SortableList } from '../../../ui/SortableList';
import { TickBox } from '../../../ui/Ticks';
import { AttributeSearch } from './AttributeSearch';
import { ChannelSheet } from './ChannelSheet';
import { rangeCount } from './model';
import { WORDS } from './words';

type Props = {
  readonly show: Show;
  readonly type: Profile;
  readonly mode: Mode;
  readonly onPut: (mode: Mode) => void;
};

/**
 * What channels are known by: their places, which stay as their order changes. Two that say they lie in one place, as may be
 * while one is moved, are still told apart.
 */
function keysOf(channels: readonly Channel[]): readonly string[] {
  const places = channels.map(({ at, cell }) => `${at.join('+')} ${cell ?? ''}`);
  return places.map((place, i) => `${place}/${places.slice(0, i).filter((one) => one === place).length}`);
}

export function ChannelList({ show, type, mode, onPut }: Props) {
  const say = useSession((session) => session.say);
  const [ticked, setTicked] = useState<readonly string[]>([]);
  const [open, setOpen] = useState<string | null>(null);
  const keys = keysOf(mode.channels);
  const items = mode.channels.map((channel, index) => ({ id: keys[index]!, channel, index }));
  const chosen = items.filter(({ id }) => ticked.includes(id));
  const indices = chosen.map(({ index }) => index);
  const shown = items.find(({ id }) => id === open);
  const lamp = patchedFixtures(rigInUse(show), show.profiles).find(
    (one) => one.profile.id === type.id && one.mode.id === mode.id,
  );
  const pair = () => {
    // Chosen from top to bottom: coarse first.
    const next = paired(mode, indices);
    if (!next) return say(WORDS.twoOrThree, { tone: 'bad' });
    onPut(next);
    setTicked([]);
  };
  const last = chosen.at(-1);
  return (
    <Column gap={12}>
      {modeFaults(mode).map((fault) => (
        <Words key={fault} color="$fault">
          {fault}
        </Words>
      ))}
      <Column>
        <SortableList
          items={items}
          nameOf={({ channel }) => nameOfChannel(channel)}
          onOrder={(order) => onPut({ ...mode, channels: order.map(({ channel }) => channel) })}
        >
          {({ id, channel }) => (
            <ChannelRow
              channel={channel}
              ticked={ticked.includes(id)}
              onTick={() => setTicked(ticked.includes(id) ? ticked.filter((one) => one !== id) : [...ticked, id])}
              onOpen={() => setOpen(id)}
            />
          )}
        </SortableList>
      </Column>
      {chosen.length > 0 && (
        <Row gap={8} flexWrap="wrap">
          {chosen.length > 1 && (
            <Button onPress={pair}>{chosen.length === 3 ? WORDS.one24Bits : WORDS.one16Bits}</Button>
          )}
          <Button onPress={() => onPut(withFlags(mode, indices, { snap: false }))}>{WORDS.fade}</Button>
          <Button onPress={() => onPut(withFlags(mode, indices, { snap: true }))}>{WORDS.snap}</Button>
          <Button onPress={() => onPut(withFlags(mode, indices, { masters: true }))}>{WORDS.withMasters}</Button>
          <Button onPress={() => onPut(withFlags(mode, indices, { masters: false }))}>{WORDS.withoutMasters}</Button>
          <Button
            kind="quiet"
            disabled={chosen.length >= mode.channels.length}
            onPress={() => {
              onPut({ ...mode, channels: mode.channels.filter((_, i) => !indices.includes(i)) });
              setTicked([]);
            }}
          >
            {WORDS.remove}
          </Button>
        </Row>
      )}
      <AttributeSearch
        label={last ? WORDS.addChannelAfter(nameOfChannel(last.channel)) : WORDS.addAChannel}
        onChoose={(attribute) => onPut(withChannel(mode, attribute, last ? last.index + 1 : mode.channels.length))}
      />
      <Row>
        <Button onPress={() => onPut(packedPlaces(mode))}>{WORDS.numberThemOrder}</Button>
      </Row>
      {shown && (
        <ChannelSheet
          key={shown.index}
          channel={shown.channel}
          lamp={lamp}
          onPut={(channel) => {
            const channels = mode.channels.map((one, i) => (i === shown.index ? channel : one));
            onPut({ ...mode, channels });
            setOpen(keysOf(channels)[shown.index]!);
          }}
          onRemove={() => {
            if (mode.channels.length > 1)
              onPut({ ...mode, channels: mode.channels.filter((_, i) => i !== shown.index) });
            else say('A mode keeps at least one channel.', { tone: 'bad' });
            setOpen(null);
          }}
          onUnpair={() => {
            onPut(unpaired(mode, shown.index));
            setOpen(null);
          }}
          onClose={() => setOpen(null)}
        />
      )}
    </Column>
  );
}

type RowProps = {
  readonly channel: Channel;
  readonly ticked: boolean;
  readonly onTick: () => void;
  readonly onOpen: () => void;
};

function ChannelRow({ channel, ticked, onTick, onOpen }: RowProps) {
  const unknown = channel.attribute === 'Reserved' && channel.name !== undefined;
  return (
    <Row gap={4}>
      <View
        render="button"
        role="checkbox"
        aria-checked={ticked}
        aria-label={WORDS.choosePlace(nameOfChannel(channel), channel.at.join('+'))}
        onPress={onTick}
        width={44}
        height={44}
        alignItems="center"
        justifyContent="center"
        borderWidth={0}
        backgroundColor="transparent"
        cursor="pointer"
      >
        <TickBox on={ticked} />
      </View>
      <View
        render="button"
        aria-label={WORDS.place(nameOfChannel(channel), channel.at.join('+'))}
        onPress={onOpen}
        flex={1}
        minWidth={0}
        minHeight={48}
        flexDirection="row"
        alignItems="center"
        gap={10}
        borderWidth={0}
        backgroundColor="transparent"
        cursor="pointer"
      >
        <Figures width={44} textAlign="left">
          {channel.at.join('+')}
        </Figures>
        <Column flex={1} minWidth={0} alignItems="flex-start">
          <Words textAlign="left" color={unknown ? '$warn' : '$text'}>
            {nameOfChannel(channel)}
            {channel.cell === undefined ? '' : `, cell ${channel.cell + 1}`}
          </Words>
          <Quiet textAlign="left" numberOfLines={1}>
            {[
              unknown ? 'to settle: what does it do?' : channel.name ? attributeOf(channel.attribute).name : '',
              channel.ranges.length > 0 ? rangeCount(channel) : '',
              snaps(channel) ? 'snaps' : '',
              channel.masters === false ? 'without masters' : '',
            ]
              .filter(Boolean)
              .join(' · ')}
          </Quiet>
        </Column>
      </View>
    </Row>
  );
}
