// Where DMX goes, and whether it arrives.

import { Text, View } from '@tamagui/core';
import { useQuery } from '@tanstack/react-query';
import { statusQuery, type Status } from '../../data/queries';
import { useHovlix, useLink, useLive } from '../../host/hovlix';
import { usePalette } from '../../ui/palette';
import { Button, Column, Figures, PlaceHead, Quiet, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';

export function LinksPlace() {
  const app = useHovlix();
  const conductor = useLink((link) => link.conductor);
  const sending = useLive((live) => live.sending);
  const served = conductor === 'server';
  const status = useQuery(statusQuery(served)).data;
  return (
    <ScrollArea>
      <PlaceHead title="Links">
        {served && (
          <Button
            kind={sending ? 'plain' : 'primary'}
            pressed={sending}
            onPress={() => app.conducting.act({ type: 'sending', on: !sending })}
          >
            {sending ? 'Stop sending' : 'Start sending'}
          </Button>
        )}
      </PlaceHead>
      <Column paddingHorizontal={12} gap={12}>
        <Conductor conductor={conductor} screens={status?.screens} />
        {served && status?.output && <Outputs output={status.output} />}
        {served && status && <NodeCard node={status.node} />}
      </Column>
    </ScrollArea>
  );
}

function Card({ title, children }: { readonly title: string; readonly children: React.ReactNode }) {
  return (
    <Column backgroundColor="$raised" borderRadius={14} padding={16} gap={10}>
      <Text render="h2" margin={0} fontFamily="$heading" fontWeight="650" fontSize={16} lineHeight={22} color="$text">
        {title}
      </Text>
      {children}
    </Column>
  );
}

function State({
  colour,
  word,
  children,
}: {
  readonly colour: '$live' | '$warn' | '$fault' | '$faint';
  readonly word: string;
  readonly children?: React.ReactNode;
}) {
  return (
    <Row gap={10} alignItems="flex-start">
      <View width={10} height={10} marginTop={5} borderRadius={5} backgroundColor={colour} />
      <Column flex={1} gap={2}>
        <Words fontWeight="600">{word}</Words>
        {children}
      </Column>
    </Row>
  );
}

function Conductor({ conductor, screens }: { readonly conductor: string; readonly screens: number | undefined }) {
  const refused = useLink((link) => link.refused);
  return (
    <Card title="Conductor">
      {conductor === 'server' && (
        <State colour="$live" word="The Hovlix server conducts">
          <Quiet>
            It keeps the order of what is pressed and sends DMX.{' '}
            {screens === undefined ? '' : screens === 1 ? 'This is the only screen.' : `${screens} screens follow it.`}{' '}
            Closing this page changes nothing on stage.
          </Quiet>
        </State>
      )}
      {conductor === 'browser' && (
        <State colour="$warn" word="This browser conducts by itself">
          <Quiet>
            Everything works but the way out: a web page cannot send DMX. For lamps, start Hovlix on this computer with
            ./start and open the address it prints.
          </Quiet>
        </State>
      )}
      {conductor === 'lost' && (
        <State colour="$fault" word="The server does not answer">
          <Quiet>
            It was here and has gone. This browser goes on by itself and takes the server back as soon as it answers.
          </Quiet>
        </State>
      )}
      {conductor === 'looking' && <State colour="$faint" word="Looking for the server" />}
      {refused && <Words color="$warn">The conductor refused a message: {refused}</Words>}
    </Card>
  );
}

function Outputs({ output }: { readonly output: NonNullable<Status['output']> }) {
  return (
    <Card title="Outputs">
      {output.senders.map((sender) => {
        const live = output.sending && !sender.error;
        return (
          <Row key={`${sender.protocol}${sender.host}${sender.port}`} gap={10} alignItems="flex-start">
            <View flex={1}>
              <State
                colour={sender.error ? '$fault' : live ? '$live' : '$warn'}
                word={sender.error ? 'Fails' : live ? 'Live' : 'Silent'}
              >
                <Quiet>
                  {sender.protocol === 'sacn' ? 'sACN' : 'Art-Net'} to{' '}
                  {sender.host === 'multicast' ? 'everyone (multicast)' : sender.host} · universe{' '}
                  {output.universes.join(', ') || 'none yet'}
                </Quiet>
                {sender.error && <Words color="$fault">{sender.error}</Words>}
              </State>
            </View>
            <Column alignItems="flex-end">
              <Figures color="$text" fontSize={15}>
                {Math.round(output.framesPerSecond)}/s
              </Figures>
              <Figures>{sender.packets.toLocaleString('en')} sent</Figures>
            </Column>
          </Row>
        );
      })}
    </Card>
  );
}

function NodeCard({ node }: { readonly node: Status['node'] }) {
  if (!node)
    return (
      <Card title="DMX node stand-in">
        <Quiet>
          It does not run. `./start` brings it along; it listens on this computer and shows what a box on the truss
          would get.
        </Quiet>
      </Card>
    );
  return (
    <Card title="DMX node stand-in">
      <Quiet>A box on the truss would get this. It hears real packets on this computer.</Quiet>
      {node.universes.length === 0 && <State colour="$warn" word="Nothing arrives" />}
      {node.universes.map((universe) => (
        <Column key={`${universe.protocol}${universe.universe}${universe.source}`} gap={10}>
          <State
            colour={universe.framesPerSecond > 40 ? '$live' : '$warn'}
            word={`Universe ${universe.universe} arrives`}
          >
            <Quiet>
              {universe.protocol === 'sacn' ? 'sACN' : 'Art-Net'} from {universe.source}
              {universe.priority === null ? '' : ` · priority ${universe.priority}`}
            </Quiet>
          </State>
          <Row gap={20} flexWrap="wrap">
            <Fact name="frames a second" value={String(Math.round(universe.framesPerSecond))} id="node-rate" />
            <Fact name="lost" value={String(universe.lost)} id="node-lost" />
            <Fact name="longest gap" value={`${universe.longestGapMs.toFixed(0)} ms`} id="node-gap" />
            <Fact name="changes seen" value={universe.changes.toLocaleString('en')} id="node-changes" />
          </Row>
          <Levels levels={universe.levels} />
        </Column>
      ))}
      {node.bad > 0 && (
        <Quiet>
          {node.bad} packets were no DMX: {node.lastBad}
        </Quiet>
      )}
    </Card>
  );
}

function Fact({ name, value, id }: { readonly name: string; readonly value: string; readonly id: string }) {
  return (
    <Column>
      <Figures fontSize={22} lineHeight={26} fontWeight="600" color="$text" testID={id}>
        {value}
      </Figures>
      <Quiet fontSize={12}>{name}</Quiet>
    </Column>
  );
}

/** All levels up to the last that is used, as bars. */
function Levels({ levels }: { readonly levels: readonly number[] }) {
  const palette = usePalette();
  const used = Math.max(32, levels.findLastIndex((level) => level > 0) + 1);
  const rows = Math.ceil(used / 64);
  return (
    <Column gap={4} role="img" aria-label={`Levels of channels 1 to ${used}`}>
      {Array.from({ length: rows }, (_, row) => (
        <div
          key={row}
          style={{
            display: 'flex',
            alignItems: 'flex-end',
            gap: 1,
            height: 30,
            background: palette.sunken,
            borderRadius: 4,
            padding: '0 2px',
          }}
        >
          {levels.slice(row * 64, row * 64 + 64).map((level, i) => (
            <span
              key={i}
              style={{
                flex: 1,
                height: `${(level / 255) * 100}%`,
                minHeight: 1,
                background: level > 0 ? palette.live : palette.line,
                borderRadius: 1,
              }}
            />
          ))}
        </div>
      ))}
      <Figures fontSize={12}>channels 1 – {Math.min(512, rows * 64)}</Figures>
    </Column>
  );
}
