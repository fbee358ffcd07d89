// The channels of one universe: each level as it leaves the computer, and as many of them in hand as one likes.

import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { seconds } from '@hovlix/core/units';
import { statusQuery } from '../../data/queries';
import { useConnections, useHovlix, useLink, useLive, useShow } from '../../host/hovlix';
import { Range } from '../../ui/Range';
import { Button, Column, Figures, Quiet, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { PageHead } from './PageHead';
import { Channels, type ChannelRef } from './Channels';
import { channelName, sameChannels } from './model';
import { WORDS } from './words';

/** A walk stays this long on each channel. */
const WALK_STEP = seconds(0.6);
const FLASH_FOR = seconds(5);

/** A chosen channel, and the level it left with when it was chosen: where the fader takes it up. */
export function UniversePlace({ universe }: { readonly universe: number }) {
  const conductor = useLink((link) => link.conductor);
  const served = conductor === 'server';
  const status = useQuery(statusQuery(served)).data;
  const [chosen, setChosen] = useState<readonly ChannelRef[]>([]);
  const rate = status?.output?.framesPerSecond;
  const outputs = useConnections((state) => state.connections?.outputs);
  const carried = !outputs || outputs.some((row) => row.universe === universe && row.on);
  const arrives = status?.node?.universes.find((one) => one.universe === universe);
  const toggle = (address: number, was: number) =>
    setChosen((before) =>
      before.some((one) => one.universe === universe && one.address === address)
        ? before.filter((one) => one.universe !== universe || one.address !== address)
        : [...before, { universe, address, was }],
    );
  return (
    <Column height="100%">
      <PageHead title={WORDS.universeAlone(universe)}>
        <Quiet>
          {!carried ? WORDS.noOutputSends : rate === undefined ? '' : WORDS.framesSecondLeave(Math.round(rate))}
          {arrives
            ? WORDS.standGetsLost(Math.round(arrives.framesPerSecond), arrives.lost, Math.round(arrives.longestGapMs))
            : ''}
        </Quiet>
      </PageHead>
      <Column flex={1} minHeight={0}>
        <ScrollArea>
          {served && <Channels universe={universe} chosen={chosen} onToggle={toggle} />}
          {!served && conductor !== 'looking' && <Words padding={16}>{WORDS.levelsLeaveThrough}</Words>}
        </ScrollArea>
      </Column>
      <Hand universe={universe} chosen={chosen} onChoose={setChosen} />
    </Column>
  );
}

type HandProps = {
  readonly universe: number;
  readonly chosen: readonly ChannelRef[];
  readonly onChoose: (chosen: readonly ChannelRef[]) => void;
};

/** What is done with the chosen channels. */
function Hand({ universe, chosen, onChoose }: HandProps) {
  const app = useHovlix();
  const show = useShow((one) => one);
  const held = useLive((live) => live.held);
  const test = useLive((live) => live.test);
  const dark = useLive((live) => live.blackout.on);
  const act = app.conducting.act;
  const last = chosen.at(-1);
  const alike = show && last ? sameChannels(show, last.universe, last.address) : null;
  const value = last
    ? held.find((one) => one.universe === last.universe && one.address === last.address)?.value
    : undefined;
  const testing = test?.universe === universe;
  const only = chosen.filter((one) => one.universe === universe).map((one) => one.address);
  const flash = () => {
    const these = only.length > 0 ? { only } : {};
    act({ type: 'flash-channels', universe, from: 1, count: 512, ...these, length: FLASH_FOR });
  };
  return (
    <Column
      backgroundColor="$raised"
      borderTopWidth={1}
      borderColor="$line"
      padding={12}
      gap={8}
      role="region"
      aria-label={WORDS.byHand}
    >
      <Row gap={12} justifyContent="space-between">
        <Words flex={1} minWidth={0} numberOfLines={2}>
          {last === undefined
            ? held.length > 0
              ? WORDS.channelsHeldBy(held.length)
              : WORDS.tapChannelsSet
            : chosen.length === 1
              ? WORDS.channelNamed(last.address, nameOf(channelName(show, last.universe, last.address)))
              : WORDS.channels(chosen.length)}
        </Words>
        {last && (
          <Figures fontSize={22} lineHeight={28} fontWeight="600" color="$text" testID="held">
            {value ?? last.was ?? '—'}
          </Figures>
        )}
      </Row>
      {dark && <Quiet color="$warn">{WORDS.blackoutHandsTests}</Quiet>}
      {last && (
        <Range
          most={255}
          value={value ?? last.was ?? 0}
          aria-label={WORDS.levelChosenChannels}
          onChange={(level) =>
            act({
              type: 'hold-channels',
              channels: chosen.map(({ universe: at, address }) => ({ universe: at, address, value: level })),
            })
          }
        />
      )}
      <ScrollArea sideways>
        <Row gap={8}>
          {alike && alike.channels.length > 1 && (
            <Button onPress={() => onChoose(alike.channels.map((one) => ({ ...one, was: last?.was ?? 0 })))}>
              {WORDS.take(alike.label)}
            </Button>
          )}
          {only.length === 2 && chosen.length === 2 && (
            <Button onPress={() => onChoose(everyNth(chosen, universe))}>{WORDS.everyFromThere(step(chosen))}</Button>
          )}
          {chosen.length > 0 && <Button onPress={() => onChoose([])}>{WORDS.chooseNone}</Button>}
          {held.length > 0 && (
            <Button kind="primary" onPress={() => act({ type: 'free-channels', universe: null })}>
              {WORDS.release}
            </Button>
          )}
          {testing ? (
            <Button kind="primary" onPress={() => act({ type: 'end-test' })}>
              {WORDS.endTheTest}
            </Button>
          ) : (
            <>
              <Button onPress={flash}>{only.length > 0 ? WORDS.flashThese : WORDS.flashAll}</Button>
              <Button
                onPress={() =>
                  act({ type: 'walk-channels', universe, from: last?.address ?? 1, to: 512, step: WALK_STEP })
                }
              >
                {WORDS.walkThrough}
              </Button>
            </>
          )}
        </Row>
      </ScrollArea>
    </Column>
  );
}

const nameOf = (name: string | null) => (name ? ` · ${name}` : '');

function step(chosen: readonly ChannelRef[]): number {
  return Math.abs(chosen[1]!.address - chosen[0]!.address);
}

/** The two chosen ones show the distance: on from there in the same step, for lamps nobody has patched yet. */
function everyNth(chosen: readonly ChannelRef[], universe: number): ChannelRef[] {
  const first = Math.min(chosen[0]!.address, chosen[1]!.address);
  const by = Math.max(1, step(chosen));
  const count = Math.floor((512 - first) / by) + 1;
  return Array.from({ length: count }, (_, i) => ({ universe, address: first + i * by }));
}
