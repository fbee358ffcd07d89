// The stand-in for a DJ player: two decks, and the tracks to load on them.

import { useState } from 'react';
import { useStore } from 'zustand';
import { useQuery } from '@tanstack/react-query';
import { useMedia } from '@tamagui/core';
import { NO_PLAYER } from '@hovlix/core/connect';
import type { Song } from '@hovlix/core/song';
import { statusQuery } from '../../../data/queries';
import { useConnections, useHovlix, useLink, useShow } from '../../../host/hovlix';
import { State } from '../../../ui/card';
import { FileButton } from '../../../ui/FileButton';
import { LongList } from '../../../ui/LongList';
import { MidiSwitch } from '../../midi/MidiSwitch';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { clockText } from '../../../ui/clock-text';
import { Switch } from '../../../ui/Switch';
import { PageHead } from '../PageHead';
import { DeckPanel } from './DeckPanel';
import { useDeckClock, useDecks, type DecksInHand } from './use-decks';
import { STAND_IN } from './words';

const DECKS = [1, 2];
const ROW_HEIGHT = 60;

export function DecksPlace() {
  const served = useLink((link) => link.conductor) === 'server';
  return (
    <ScrollArea>
      <PageHead title={STAND_IN.title} />
      <Column paddingHorizontal={12} gap={12} paddingBottom={16}>
        <Quiet paddingHorizontal={4}>{STAND_IN.what}</Quiet>
        {served ? <Decks /> : <State colour="$warn" word={STAND_IN.alone} />}
      </Column>
    </ScrollArea>
  );
}

function Decks() {
  const { wide } = useMedia();
  const hand = useDecks(DECKS.length);
  const { decks } = hand;
  if (decks?.length === 0) return <State colour="$warn" word={STAND_IN.noDecks} />;
  const panels = DECKS.map((number) => (
    <Column key={number} flex={wide ? 1 : undefined} minWidth={0}>
      <DeckPanel number={number} deck={decks?.[number - 1]} does={(command) => hand.does(number, command)} />
    </Column>
  ));
  return (
    <>
      <Deaf />
      {wide ? (
        <Row gap={12} alignItems="stretch">
          {panels}
        </Row>
      ) : (
        panels
      )}
      <Clock decks={decks} />
      <Tracks hand={hand} />
    </>
  );
}

/** Without anybody who listens, the decks play to nobody. */
function Deaf() {
  const app = useHovlix();
  const { data: status } = useQuery(statusQuery(true));
  const player = useConnections((state) => state.connections?.player) ?? NO_PLAYER;
  if (!status || player.on) return null;
  const listen = () => app.connections.make({ type: 'set-player', player: { ...player, on: true } });
  return (
    <Row gap={12} justifyContent="space-between" paddingHorizontal={4}>
      <State colour="$warn" word={STAND_IN.deaf} />
      <Button kind="primary" onPress={listen}>
        {STAND_IN.listen}
      </Button>
    </Row>
  );
}

/** The beat of the decks for other gear, as a player's own socket sends it. */
function Clock({ decks }: { readonly decks: DecksInHand['decks'] }) {
  const app = useHovlix();
  const isOn = useStore(app.midi.store, ({ state }) => state === 'on');
  const [sends, setSends] = useState(false);
  useDeckClock(decks, sends && isOn);
  return (
    <Column paddingHorizontal={4} maxWidth={640}>
      <MidiSwitch />
      {isOn && <Switch label={STAND_IN.clock} on={sends} onChange={setSends} />}
    </Column>
  );
}

function Tracks({ hand }: { readonly hand: DecksInHand }) {
  const songs = useShow((show) => show.songs) ?? [];
  return (
    <Column render="section" aria-label={STAND_IN.tracks} gap={4} paddingHorizontal={4}>
      <Words render="h2" margin={0} fontWeight="600">
        {STAND_IN.tracks}
      </Words>
      <LongList items={songs} height={ROW_HEIGHT}>
        {(song) => <TrackRow song={song} onLoad={(deck) => hand.loadSong(deck, song)} />}
      </LongList>
      <Row paddingVertical={8}>
        <FileButton
          label={STAND_IN.file}
          accept="audio/*,.wav,.flac,.mp3,.ogg"
          onFiles={(files) => files[0] && hand.loadFile(1, files[0])}
        >
          {STAND_IN.file}
        </FileButton>
      </Row>
    </Column>
  );
}

function TrackRow({ song, onLoad }: { readonly song: Song; readonly onLoad: (deck: number) => void }) {
  return (
    <Row gap={8} minHeight={ROW_HEIGHT} justifyContent="space-between">
      <Column flex={1} minWidth={0}>
        <Words numberOfLines={1}>{song.title}</Words>
        <Row gap={8}>
          <Figures>{clockText(song.duration)}</Figures>
          <Quiet numberOfLines={1} flexShrink={1}>
            {song.by}
          </Quiet>
        </Row>
      </Column>
      {DECKS.map((deck) => (
        <Button key={deck} label={STAND_IN.load(deck, song.title)} onPress={() => onLoad(deck)}>
          {`${deck}`}
        </Button>
      ))}
    </Row>
  );
}
