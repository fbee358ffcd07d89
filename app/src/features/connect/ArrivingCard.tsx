// Is it arriving? What leaves for each universe, and what the stand-ins say of it.

import { View } from '@tamagui/core';
import type { NodeUniverse, Status } from '@hovlix/core/connect';
import { Card, Fact, State } from '../../ui/card';
import { ButtonLink } from '../../ui/links';
import { Column, Quiet, Row } from '../../ui/pieces';
import { WORDS } from './words';

export function ArrivingCard({ status }: { readonly status: Status }) {
  const universes = status.output?.universes ?? [];
  return (
    <Card title={WORDS.isItArriving}>
      <Row gap={8} flexWrap="wrap">
        {universes.map((universe) => (
          <ChannelsLink key={universe} universe={universe} />
        ))}
      </Row>
      <Quiet>{WORDS.channelsShowEach}</Quiet>
      {status.node && status.node.universes.length === 0 && (
        <State colour="$warn" word={WORDS.nothingArrivesStand}>
          <Quiet>{WORDS.theyDmxNode}</Quiet>
        </State>
      )}
      {status.node?.universes.map((one) => (
        <Arrival key={`${one.protocol}${one.universe}${one.source}`} universe={one} />
      ))}
      {status.node && status.node.bad > 0 && (
        <Quiet>{WORDS.packetsStandIns(status.node.bad, status.node.lastBad ?? '')}</Quiet>
      )}
      {status.output && status.output.skipped > 2 && (
        <Quiet>
          {WORDS.framesWereLeft(status.output.skipped)} {status.output.realTime === false && WORDS.lightMayGoFirst}
        </Quiet>
      )}
    </Card>
  );
}

function ChannelsLink({ universe }: { readonly universe: number }) {
  return <ButtonLink href={`/connect/universe/${universe}`}>{WORDS.channelsOfUniverse(universe)}</ButtonLink>;
}

const PROTOCOLS = { sacn: 'sACN', artnet: 'Art-Net', serial: 'USB' } as const;

function Arrival({ universe }: { readonly universe: NodeUniverse }) {
  const title =
    universe.protocol === 'serial' ? WORDS.standHearsUs(universe.source) : WORDS.universeArrives(universe.universe);
  return (
    <Column gap={10}>
      <State colour={universe.framesPerSecond > 20 ? '$live' : '$warn'} word={title}>
        <Quiet>
          {PROTOCOLS[universe.protocol]}
          {universe.protocol === 'serial' ? '' : WORDS.from(universe.source)}
          {universe.priority === null ? '' : WORDS.priority(universe.priority)}
        </Quiet>
      </State>
      <Row gap={20} flexWrap="wrap">
        <Fact name={WORDS.framesASecond} value={String(Math.round(universe.framesPerSecond))} id="node-rate" />
        {universe.protocol !== 'serial' && <Fact name="lost" value={String(universe.lost)} id="node-lost" />}
        <Fact name={WORDS.longestGap} value={`${universe.longestGapMs.toFixed(0)} ms`} id="node-gap" />
        <Fact name={WORDS.changesSeen} value={universe.changes.toLocaleString('en')} id="node-changes" />
      </Row>
      <LevelBars levels={universe.levels} />
    </Column>
  );
}

/** All levels up to the last that is used, as bars. */
function LevelBars({ levels }: { readonly levels: readonly number[] }) {
  const used = Math.max(32, levels.findLastIndex((level) => level > 0) + 1);
  const rows = Math.ceil(used / 64);
  return (
    <Column gap={4} role="img" aria-label={WORDS.levelsChannels1(used)}>
      {Array.from({ length: rows }, (_, row) => (
        <Row
          key={row}
          alignItems="flex-end"
          gap={1}
          height={24}
          paddingHorizontal={2}
          borderRadius={4}
          backgroundColor="$sunken"
        >
          {levels.slice(row * 64, row * 64 + 64).map((level, i) => (
            <View
              key={i}
              flex={1}
              height={`${(level / 255) * 100}%`}
              minHeight={1}
              borderRadius={1}
              backgroundColor={level > 0 ? '$live' : '$line'}
            />
          ))}
        </Row>
      ))}
    </Column>
  );
}
